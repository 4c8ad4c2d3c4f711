import { mkdtempSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { entryFor, sessionIn, type Pass } from './entry'
import { Pairing } from './pairing'
import { COOKIE, Passes } from './passes'
import { Tries } from './tries'

const MINE = '11111111-1111-4111-8111-111111111111'
const OTHER = '22222222-2222-4222-8222-222222222222'
const SESSION = '33333333-3333-4333-8333-333333333333'
const device: Pass = { kind: 'device', workoutId: MINE }

const folder = mkdtempSync(join(tmpdir(), 'jivet-access-'))
afterAll(() => rmSync(folder, { recursive: true }))

describe('who may reach what', () => {
  const entry = (path: string, pass: Pass | null = null, method = 'GET', sessionOf: string | null = null) =>
    entryFor({ method, path, pass }, sessionOf)

  it('lets nobody in without a pass, but to where it is got', () => {
    for (const path of ['/', `/w/${MINE}/floor`, '/api/workouts', '/moves', '/_next/data/x', '/enterprise', '/api/say'])
      expect(entry(path), path).toBe('ask')
    for (const path of ['/enter', '/_next/static/chunk.js', '/api/health', '/icon.svg'])
      expect(entry(path), path).toBe('in')
    expect([entry('/api/enter', null, 'POST'), entry('/pair/abc_-1')]).toEqual(['in', 'pair'])
    expect(entry('/pair/abc', null, 'POST')).toBe('shut')
  })

  it('lets the owner in everywhere', () => {
    for (const path of ['/', `/w/${MINE}/ship`, '/api/workouts']) expect(entry(path, { kind: 'owner' })).toBe('in')
  })

  it('keeps a paired device to its floor', () => {
    expect(entry(`/w/${MINE}/floor`, device)).toBe('in')
    expect(entry(`/api/workouts/${MINE}/sessions`, device, 'POST')).toBe('in')
    expect(entry('/api/say', device)).toBe('in')
    expect(entry(`/api/sessions/${SESSION}/events`, device, 'POST', MINE)).toBe('in')
    for (const [path, method, sessionOf] of [
      ['/', 'GET', null],
      ['/enter/../', 'GET', null],
      [`/w/${OTHER}/floor`, 'GET', null],
      [`/w/${MINE}/score`, 'GET', null],
      [`/w/${MINE}/floor/../score`, 'GET', null],
      [`/w/${MINE}/floor`, 'POST', null],
      [`/api/workouts/${OTHER}/sessions`, 'POST', null],
      [`/api/workouts/${MINE}/pairing`, 'POST', null],
      [`/api/workouts/${MINE}/score`, 'GET', null],
      [`/api/sessions/${SESSION}/events`, 'POST', OTHER],
      [`/api/sessions/${SESSION}/log`, 'GET', null],
      ['/api/events', 'GET', null],
      ['/api/uploads', 'POST', null],
    ] as const)
      expect(entry(path, device, method, sessionOf), `${method} ${path}`).toBe('shut')
    expect([sessionIn(`/api/sessions/${SESSION}`), sessionIn('/api/sessions/x/log')]).toEqual([SESSION, null])
  })
})

describe('passes', () => {
  const NOW = 1_800_000_000_000
  const carried = (setCookie: string): string => setCookie.split(';')[0] ?? ''

  it('prove what they were given for, until they end, and over a new start', async () => {
    const passes = await Passes.open('nine bollards', folder)
    expect([await passes.knows('nine bollards'), await passes.knows('nine bollard')]).toEqual([true, false])
    const cookie = carried(passes.cookieFor(device, NOW))
    expect(passes.passIn(`other=1; ${cookie}`, NOW + 60_000)).toMatchObject(device)
    expect(passes.passIn(cookie, NOW + 13 * 3_600_000)).toBeNull()
    const again = await Passes.open('nine bollards', folder)
    expect(again.passIn(cookie, NOW)).toMatchObject(device)
    expect((await Passes.open('ten bollards on', folder)).passIn(cookie, NOW)).toBeNull()
    expect(statSync(join(folder, 'access.salt')).mode & 0o777).toBe(0o600)
  })

  it('are worth nothing where a letter was changed', async () => {
    const passes = await Passes.open('nine bollards', folder)
    const cookie = carried(passes.cookieFor(device, NOW))
    const owner = Buffer.from(JSON.stringify({ kind: 'owner', untilMs: NOW * 2 })).toString('base64url')
    for (const forged of [
      `${COOKIE}=${owner}.${cookie.split('.')[1]}`,
      `${COOKIE}=${owner}.`,
      `${COOKIE}=${owner}`,
      `${COOKIE}=`,
      `${cookie}x`,
      cookie.slice(0, -2),
      'nothing',
    ])
      expect(passes.passIn(forged, NOW), forged).toBeNull()
    expect(passes.passIn(undefined, NOW)).toBeNull()
  })
})

describe('tries', () => {
  it('are five a minute for each, and thirty for all', () => {
    const tries = new Tries()
    for (let number = 0; number < 5; number++) expect(tries.waitFor('a', number * 1000)).toBe(0)
    expect(tries.waitFor('a', 5000)).toBe(55_000)
    expect(tries.waitFor('b', 5000)).toBe(0)
    expect(tries.waitFor('a', 60_500)).toBe(0)
    const many = new Tries()
    for (let number = 0; number < 30; number++) expect(many.waitFor(`from ${number}`, 0)).toBe(0)
    expect(many.waitFor('one more', 10)).toBeGreaterThan(0)
  })
})

describe('pairing', () => {
  it('works once, soon, and for its workout', () => {
    const pairing = new Pairing()
    const code = pairing.begin(MINE, 0)
    expect([pairing.end('guessed', 1), pairing.end(code, 1), pairing.end(code, 2)]).toEqual([null, MINE, null])
    expect(pairing.end(pairing.begin(MINE, 0), 11 * 60_000)).toBeNull()
  })
})
