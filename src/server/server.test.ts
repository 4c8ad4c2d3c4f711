// Judgements of the server that need no database.
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { Problem } from '../core/problem'
import { shownName } from './footage'
import { guard, idFrom, isOwnHost, problemResponse, readBody } from './http'
import { downloadName } from './packs'
import { speedOf, timeLeft } from './progress'
import { readSettings } from './settings'
import { storedPath } from './store'

/** The script is plain JavaScript, as it runs before anything is installed. */
const thirdParty = async () =>
  (
    (await import('../../scripts/thirdParty.mjs' as string)) as {
      thirdParty: () => { page: string; unlicensed: string[] }
    }
  ).thirdParty()

const request = (method: string, headers: Record<string, string>): Request =>
  new Request('http://127.0.0.1:4310/api/workouts', { method, headers: { host: '127.0.0.1:4310', ...headers } })

const AT_4310 = { PORT: 4310, HOST: '127.0.0.1' }

describe('the guard', () => {
  it('knows bare addresses as well where other machines are let in, and no names', () => {
    const open = { PORT: 4310, HOST: '0.0.0.0' }
    expect(['192.168.7.20:4310', '[fd00::7]:4310', 'localhost:4310'].map((host) => isOwnHost(host, open))).toEqual([
      ...[true, true, true],
    ])
    expect(
      ['deck.example:4310', '192.168.7.20:80', '192.168.7.20', '1.2.3.4.deck.example:4310', '[::1'].some((host) =>
        isOwnHost(host, open),
      ),
    ).toBe(false)
    expect(isOwnHost('192.168.7.20:4310', AT_4310)).toBe(false)
  })

  it('knows its own addresses at its own port only', () => {
    expect(['127.0.0.1:4310', 'localhost:4310', '[::1]:4310'].every((host) => isOwnHost(host, AT_4310))).toBe(true)
    expect(
      ['127.0.0.1:4311', 'deck.example', 'localhost', 'localhost:4310.example', null].some((host) =>
        isOwnHost(host, AT_4310),
      ),
    ).toBe(false)
  })
  it('lets our own pages and tools change state, and refuses every other site', () => {
    expect(() => guard(request('PUT', { origin: 'http://127.0.0.1:4310' }))).not.toThrow()
    expect(() => guard(request('PUT', {}))).not.toThrow()
    for (const origin of ['http://deck.example', 'https://127.0.0.1:4310', 'null', 'http://127.0.0.1:9999'])
      expect(() => guard(request('POST', { origin }))).toThrow(Problem)
    for (const site of ['cross-site', 'same-site'])
      for (const method of ['GET', 'DELETE'])
        expect(() => guard(request(method, { 'sec-fetch-site': site })), `${method} ${site}`).toThrow(Problem)
    for (const site of ['same-origin', 'none'])
      expect(() => guard(request('GET', { 'sec-fetch-site': site }))).not.toThrow()
    // Another of our own addresses is another origin all the same.
    expect(() => guard(request('PUT', { origin: 'http://localhost:4310' }))).toThrow(Problem)
    expect(() => guard(request('GET', { host: 'deck.example' }))).toThrow(Problem)
  })
})

describe('what is shown and kept of names', () => {
  it.each([
    ['../../etc/passwd', 'passwd'],
    ['C:\\films\\a.mov', 'a.mov'],
    ['..', 'footage'],
    ['', 'footage'],
    ['say "hi" \u{1f6f6}.mp4', 'say "hi" \u{1f6f6}.mp4'],
    ['a\u0000b\u202e.mp4', 'ab.mp4'],
  ])('shows %j as %j', (name, shown) => {
    expect(shownName(name)).toBe(shown)
  })
  it('shortens 300 letters, whole characters only', () => {
    expect([...shownName('\u{1f6f6}'.repeat(300))]).toHaveLength(200)
  })
  it('makes download names that any file system takes', () => {
    expect(downloadName('Deck Hours 12: jug/gate..\\', '.mp4')).toBe('deck-hours-12-jug-gate.mp4')
    expect(downloadName('???', '.vtt')).toBe('workout.vtt')
  })
  it('never makes a path of anything but a hash', () => {
    expect(() => storedPath('../../etc/passwd')).toThrow(Problem)
    expect(() => idFrom('../x')).toThrow(Problem)
  })
})

describe('answers', () => {
  it('carry the problem with its status, and hide what is ours alone', async () => {
    expect(problemResponse(new Problem({ code: 'stale', what: 'score', now: { revision: 2, key: null } })).status).toBe(
      409,
    )
    const answer = problemResponse(
      new Problem({ code: 'tool-failed', tool: 'ffmpeg', reason: 'no reason given' }, '/secret/path'),
    )
    expect(await answer.json()).toMatchObject({
      problem: { code: 'tool-failed', message: 'ffmpeg gave up: no reason given', place: null },
    })
  })
  it('reckon time left only when there is enough to reckon from', () => {
    expect(timeLeft({ state: 'active', share: 0.25, startedAt: new Date(0) }, 10_000)).toBe(30_000)
    expect(timeLeft({ state: 'active', share: 0.01, startedAt: new Date(0) }, 10_000)).toBeNull()
    expect(timeLeft({ state: 'queued', share: 0.5, startedAt: null }, 10_000)).toBeNull()
  })
  it('tells how fast it goes, once it is known how much there is to make', () => {
    const running = { state: 'active' as const, startedAt: new Date(0), madeMs: 100_000 }
    expect(speedOf({ ...running, share: 0.44 }, 25_000)).toBeCloseTo(2)
    expect(speedOf({ ...running, share: 0.9 }, 25_000)).toBeNull()
    expect(speedOf({ ...running, share: 0.44, madeMs: null }, 25_000)).toBeNull()
    expect(speedOf({ ...running, share: 0.44, state: 'queued', startedAt: null }, 25_000)).toBeNull()
  })
  it('refuse settings that would open the server to others', () => {
    expect(() => readSettings({ HOST: '0.0.0.0' } as unknown as NodeJS.ProcessEnv)).toThrow(/JIVET_PASSPHRASE/)
    expect(() => readSettings({ HOST: '0.0.0.0', JIVET_PASSPHRASE: 'short' } as unknown as NodeJS.ProcessEnv)).toThrow(
      /10 letters/,
    )
    expect(() => readSettings({ PORT: '99999' } as unknown as NodeJS.ProcessEnv)).toThrow(/PORT/)
    expect(readSettings({} as NodeJS.ProcessEnv)).toMatchObject({ PORT: 4310, HOST: '127.0.0.1' })
  })
})

describe('a name for a download', () => {
  it('is cut between letters, so that its address can be written', () => {
    const name = downloadName('𝒟𐐀'.repeat(120), '.mp4')
    expect(name.isWellFormed()).toBe(true)
    expect(() => encodeURIComponent(downloadName(`${'a'.repeat(79)}𐐀`, '.mp4'))).not.toThrow()
    expect(() => encodeURIComponent(downloadName('broken \ud835 title', '.mp4'))).not.toThrow()
  })
})

describe('a body', () => {
  const post = (body: BodyInit): Request =>
    new Request('http://127.0.0.1/', { method: 'POST', body, ...({ duplex: 'half' } as object) })
  const anything = z.looseObject({})
  it('is counted as it comes, whatever length it announces', async () => {
    let sent = 0
    const endless = new ReadableStream<Uint8Array>({
      pull(controller) {
        sent++
        controller.enqueue(new Uint8Array(1024 * 1024))
      },
    })
    await expect(readBody(post(endless), anything)).rejects.toMatchObject({ code: 'too-large' })
    expect(sent).toBeLessThan(40)
  })
  it('that is no JSON, has half a letter or a NUL, or too many of something is refused in words', async () => {
    await expect(readBody(post('{'), anything)).rejects.toMatchObject({ code: 'bad-json' })
    await expect(readBody(post('{"a":"\\ud83d"}'), anything)).rejects.toMatchObject({ code: 'unstorable-text' })
    const sections = z.object({ sections: z.array(z.number()).max(500) })
    const many = JSON.stringify({ sections: Array.from({ length: 501 }, () => 1) })
    await expect(readBody(post(many), sections)).rejects.toMatchObject({
      message: 'More than 500 sections. Put neighbouring parts together.',
    })
  })
})

describe('what Jivet is built on', () => {
  it('is listed as the lock file has it, all with a licence', async () => {
    const { page, unlicensed } = await thirdParty()
    expect(unlicensed).toEqual([])
    expect(readFileSync('THIRD-PARTY.md', 'utf8')).toBe(page)
  })
})
