import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { serveFile } from './serveFile'

const folder = mkdtempSync(join(tmpdir(), 'jivet-serve-'))
const path = join(folder, 'film')
writeFileSync(path, '0123456789')
afterAll(() => rmSync(folder, { recursive: true }))

const ask = (range?: string): Promise<Response> =>
  serveFile(new Request('http://x/', range ? { headers: { range } } : {}), path, {
    type: 'video/mp4',
    download: 'a "b".mp4',
  })

describe('serving a file', () => {
  it('gives the whole of it', async () => {
    const answer = await ask()
    expect([answer.status, answer.headers.get('content-length'), await answer.text()]).toEqual([
      200,
      '10',
      '0123456789',
    ])
    expect(answer.headers.get('content-disposition')).toBe("attachment; filename*=UTF-8''a%20%22b%22.mp4")
  })
  it.each([
    ['bytes=2-4', '234', 'bytes 2-4/10'],
    ['bytes=7-', '789', 'bytes 7-9/10'],
    ['bytes=-2', '89', 'bytes 8-9/10'],
    ['bytes=5-99', '56789', 'bytes 5-9/10'],
  ])('gives the range %s', async (range, text, content) => {
    const answer = await ask(range)
    expect([answer.status, answer.headers.get('content-range'), await answer.text()]).toEqual([206, content, text])
  })
  it('refuses a range beyond the end, and ignores nonsense', async () => {
    expect((await ask('bytes=20-30')).status).toBe(416)
    expect((await ask('lines=1-2')).status).toBe(200)
  })
  it('says when the file is gone', async () => {
    await expect(
      serveFile(new Request('http://x/'), join(folder, 'nothing'), { type: 'video/mp4' }),
    ).rejects.toMatchObject({ code: 'not-found' })
  })
  it('tells the reader, and nobody else, when it goes while it is being served', async () => {
    const passing = join(folder, 'passing')
    writeFileSync(passing, '0123456789')
    const [left, read] = await Promise.all(
      [1, 2].map(() => serveFile(new Request('http://x/'), passing, { type: 'video/mp4' })),
    )
    rmSync(passing)
    // An error that nobody hears of would fail this run.
    await left?.body?.cancel()
    await new Promise((done) => setTimeout(done, 50))
    await expect(read?.text()).rejects.toThrow('ENOENT')
  })
})
