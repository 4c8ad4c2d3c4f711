import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readCallModel } from './calls'

const bytes = new Uint8Array(readFileSync('models/calls.bin'))

describe('the model of calls', () => {
  it('that ships is whole, and its layers fit one another', () => {
    const model = readCallModel(bytes)
    expect(model.map((layer) => layer.in).slice(1)).toEqual(model.map((layer) => layer.out).slice(0, -1))
    expect([model[0]?.in, model.at(-1)?.out]).toEqual([40, 8])
  })
  it.each([
    ['cut short', bytes.slice(0, -2)],
    ['empty', new Uint8Array()],
    ['longer than its header says', new Uint8Array([...bytes, 0, 0])],
    ['of another kind', new TextEncoder().encode('{"format":1}'.padEnd(4000))],
    ['of a later format', withHeader({ format: 2 })],
    ['of an odd width', withHeader({ format: 1, bands: 40, layers: [{ kind: 'linear', out: 3, in: 40 }] })],
  ])('is refused where it is %s', (_, damaged) => {
    expect(() => readCallModel(damaged)).toThrow(expect.objectContaining({ code: 'model-damaged' }))
  })
})

function withHeader(header: unknown): Uint8Array {
  const text = new TextEncoder().encode(JSON.stringify(header))
  const out = new Uint8Array(4 + text.length)
  new DataView(out.buffer).setUint32(0, text.length, true)
  out.set(text, 4)
  return out
}
