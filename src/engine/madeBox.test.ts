import { appendFileSync, mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, it } from 'vitest'
import { companionOf } from '../core/cut/companion'
import { expand } from '../core/expand/expand'
import { USUAL_LOOK } from '../core/look/looks/family'
import { madeOf, shownOf } from '../core/render/made'
import { USUAL_MIX } from '../core/sound/mix'
import { circuit, score } from '../core/testing'
import { readMadeBox, writeMadeBox } from './madeBox'

const folder = mkdtempSync(join(tmpdir(), 'jivet-made-'))
afterAll(() => rmSync(folder, { recursive: true }))
const { segments } = expand(score(circuit()))
const { cut, shown } = companionOf(segments)
const made = madeOf({ cut, shown, look: { ...USUAL_LOOK, look: 'keel' }, mix: USUAL_MIX, cueAsk: { timer: [5, 7] } })

/** Boxes as they stand in a video: one of usual length, one with a long length. */
const boxes = (): Buffer => {
  const usual = Buffer.concat([Buffer.from([0, 0, 0, 16]), Buffer.from('ftypisom'), Buffer.alloc(4)])
  const long = Buffer.concat([Buffer.from([0, 0, 0, 1]), Buffer.from('mdat'), Buffer.alloc(8), Buffer.alloc(40)])
  long.writeBigUInt64BE(BigInt(long.length), 8)
  return Buffer.concat([usual, long])
}
const file = (name: string, content: Buffer): string => {
  const path = join(folder, name)
  writeFileSync(path, content)
  return path
}

it('gives back what a video was made with, behind boxes of any length and before others', async () => {
  const path = file('whole.mp4', boxes())
  await writeMadeBox(path, made)
  expect(readFileSync(path).subarray(0, boxes().length)).toEqual(boxes())
  appendFileSync(path, boxes())
  expect(await readMadeBox(path)).toEqual(made)
  expect(shownOf(made, segments)).toEqual(shown)
})

it('has none where there is none, where it is cut off, and where the file is no video', async () => {
  const path = file('cut.mp4', boxes())
  expect(await readMadeBox(path)).toBeNull()
  await writeMadeBox(path, made)
  truncateSync(path, readFileSync(path).length - 30)
  expect(await readMadeBox(path)).toBeNull()
  for (const content of ['', 'no video', '\0\0\0\0uuid', '\0\0\0\x01uuid', '\0\0\0\x04mdat'])
    expect(await readMadeBox(file('none.mp4', Buffer.from(content, 'latin1')))).toBeNull()
})

it('is not that of another plan', () => {
  expect(() => shownOf(made, segments.slice(1))).toThrow(/another plan/)
})
