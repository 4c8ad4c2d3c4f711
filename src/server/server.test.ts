// Judgements of the server that need no database.
import { describe, expect, it } from 'vitest'
import { Problem } from '../core/problem'
import { shownName } from './footage'
import { guard, idFrom, isOwnHost, problemResponse } from './http'
import { downloadName } from './packs'
import { timeLeft } from './progress'
import { readSettings } from './settings'
import { storedPath } from './store'

const request = (method: string, headers: Record<string, string>): Request =>
  new Request('http://127.0.0.1:4310/api/workouts', { method, headers: { host: '127.0.0.1:4310', ...headers } })

describe('the guard', () => {
  it('knows its own addresses at its own port only', () => {
    expect(['127.0.0.1:4310', 'localhost:4310', '[::1]:4310'].every((host) => isOwnHost(host, 4310))).toBe(true)
    expect(
      ['127.0.0.1:4311', 'deck.example', 'localhost', 'localhost:4310.example', null].some((host) =>
        isOwnHost(host, 4310),
      ),
    ).toBe(false)
  })
  it('lets our own pages and tools change state, and refuses every other site', () => {
    expect(() => guard(request('PUT', { origin: 'http://127.0.0.1:4310' }))).not.toThrow()
    expect(() => guard(request('PUT', {}))).not.toThrow()
    for (const origin of ['http://deck.example', 'https://127.0.0.1:4310', 'null', 'http://127.0.0.1:9999'])
      expect(() => guard(request('POST', { origin }))).toThrow(Problem)
    expect(() => guard(request('DELETE', { 'sec-fetch-site': 'cross-site' }))).toThrow(Problem)
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
  it('refuse settings that would open the server to others', () => {
    expect(() => readSettings({ HOST: '0.0.0.0' } as unknown as NodeJS.ProcessEnv)).toThrow(/HOST/)
    expect(() => readSettings({ PORT: '99999' } as unknown as NodeJS.ProcessEnv)).toThrow(/PORT/)
    expect(readSettings({} as NodeJS.ProcessEnv)).toMatchObject({ PORT: 4310, HOST: '127.0.0.1' })
  })
})
