import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { entryFor, FLOOR, OPEN, sessionIn, type Listed, type Pass } from './entry'
import { Pairing } from './pairing'
import { COOKIE, Passes } from './passes'
import { plainPath, plainTarget } from './plainPath'
import { Tries } from './tries'

const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']
const MINE = '11111111-1111-4111-8111-111111111111'
const OTHER = '22222222-2222-4222-8222-222222222222'
const SESSION = '33333333-3333-4333-8333-333333333333'
const PASS = '44444444-4444-4444-8444-444444444444'
const device: Pass = { kind: 'device', id: PASS, workoutId: MINE }

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
    for (const path of ['/', `/w/${MINE}/ship`, '/api/workouts'])
      expect(entry(path, { kind: 'owner', id: PASS })).toBe('in')
  })

  it('keeps a paired device to its floor', () => {
    expect(entry(`/w/${MINE}/floor`, device)).toBe('in')
    expect(entry(`/api/workouts/${MINE}/sessions`, device, 'POST')).toBe('in')
    expect(entry('/api/say', device)).toBe('in')
    expect(entry(`/api/sessions/${SESSION}/events`, device, 'POST', MINE)).toBe('in')
    for (const [path, method, sessionOf] of [
      ['/', 'GET', null],
      ['/_next/image', 'GET', null],
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
      [`/api/sessions/${SESSION}/other`, 'GET', MINE],
      [`/api/sessions/${SESSION}`, 'DELETE', MINE],
      ['/api/events', 'GET', null],
      ['/api/uploads', 'POST', null],
    ] as const)
      expect(entry(path, device, method, sessionOf), `${method} ${path}`).toBe('shut')
    expect([sessionIn(`/api/sessions/${SESSION}`), sessionIn('/api/sessions/x/log')]).toEqual([SESSION, null])
  })
})

describe('a path', () => {
  it('is what it says, decoded once', () => {
    expect(plainPath('/w/1/floor?board=../x')).toBe('/w/1/floor')
    expect([plainPath('/'), plainPath('/moves/'), plainPath('/a%20b')]).toEqual(['/', '/moves/', '/a b'])
    expect(plainPath('/_next/static/chunks/[id]-1.js')).toBe('/_next/static/chunks/[id]-1.js')
    expect(plainTarget('/a b/é', '/a%20b/%C3%A9?q=1#x')).toBe('/a%20b/%C3%A9?q=1')
  })

  it('is refused where it could be read in two ways', () => {
    for (const target of [
      ...['/_next/static/../../api/moves', '/_next/static/x/../../..', '/..', '/.', '/a/./b', '/a/..', '/a/..;/b'],
      ...['/_next/static/%2e%2e/%2e%2e/api', '/%2E./api', '/.%2e/api', '/a%2fb', '/a%5cb', '/a\\b', '//api/moves'],
      ...['/a//b', '/%252e%252e/api', '/%25%32%65', '/a%00', '/a%0d', '/%', '/%ff', '', '*', 'api', 'http://x/api'],
    ])
      expect(plainPath(target), target).toBeNull()
  })
})

describe('the list of routes', () => {
  const app = join(import.meta.dirname, '..', '..', 'app')
  const WHATEVER = /^\[\[\.\.\.\w+\]\]$/
  /** Every page and route handler, by the path that its folder names, with the methods that it answers. */
  const routes = readdirSync(app, { recursive: true, encoding: 'utf8' }).flatMap((file) => {
    const kind = /(?:^|\/)(page\.tsx|route\.ts)$/.exec(file)?.[1]
    if (!kind) return []
    const path = `/${dirname(file)}`.replace(/^\/\.$/, '/')
    const text = readFileSync(join(app, file), 'utf8')
    const methods = METHODS.filter((method) =>
      kind === 'page.tsx' ? method === 'GET' || method === 'HEAD' : new RegExp(`\\b${method}\\b`).test(text),
    )
    return [{ path, methods: kind === 'route.ts' && methods.includes('GET') ? [...methods, 'HEAD'] : methods }]
  })
  const isIn = (list: readonly Listed[], route: string, method: string): boolean =>
    list.some((one) => one.route === route && one.methods.includes(method))
  const filled = (path: string, id: string): string =>
    path
      .split('/')
      .map((part) => (WHATEVER.test(part) ? '' : part.replace(/^\[\w+\]$/, id)))
      .join('/')
      .replace(/(.)\/$/, '$1')

  it('is all that opens: every other route of the application is closed', () => {
    expect(routes.length).toBeGreaterThan(60)
    for (const { path } of routes)
      for (const method of METHODS) {
        const isSession = path.startsWith('/api/sessions/')
        const asked = filled(path, isSession ? SESSION : MINE)
        const own = isSession ? MINE : null
        const isOpen = isIn(OPEN, path, method)
        expect(entryFor({ method, path: asked, pass: null }, null), `${method} ${path}`).toBe(isOpen ? 'in' : 'ask')
        expect(entryFor({ method, path: asked, pass: device }, own) === 'in', `${method} ${path}, paired`).toBe(
          isOpen || isIn(FLOOR, path, method),
        )
      }
  })

  it('names only what there is', () => {
    for (const { route, methods } of [...OPEN, ...FLOOR]) {
      if (route.startsWith('/_next/') || route === '/icon.svg') continue
      const found = routes.find(({ path }) => path === route)
      expect(
        methods.every((method) => found?.methods.includes(method)),
        route,
      ).toBe(true)
    }
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
    const owner = Buffer.from(JSON.stringify({ kind: 'owner', id: PASS, untilMs: NOW * 2 })).toString('base64url')
    for (const forged of [
      `${COOKIE}=${owner}.${cookie.split('.')[1]}`,
      `${COOKIE}=${owner}.`,
      `${COOKIE}=${owner}`,
      `${COOKIE}=`,
      `${cookie}x`,
      `${cookie}.more`,
      `${cookie}=`,
      `${cookie}!`,
      `${cookie} behind`,
      cookie.slice(0, -2),
      'nothing',
    ])
      expect(passes.passIn(forged, NOW), forged).toBeNull()
    expect(passes.passIn(undefined, NOW)).toBeNull()
  })
})

describe('tries', () => {
  const LIMITS = { each: 5, all: 30 }
  it('are five a minute for each, and thirty for all that are not known', () => {
    const tries = new Tries(LIMITS)
    for (let number = 0; number < 5; number++) expect(tries.waitFor('a', number * 1000)).toBe(0)
    expect(tries.waitFor('a', 5000)).toBe(55_000)
    expect(tries.waitFor('b', 5000)).toBe(0)
    expect(tries.waitFor('a', 60_500)).toBe(0)
    const many = new Tries(LIMITS)
    many.know('the owner')
    for (let number = 0; number < 30; number++) expect(many.waitFor(`from ${number}`, 0)).toBe(0)
    expect(many.waitFor('one more', 10)).toBeGreaterThan(0)
    expect(many.waitFor('the owner', 10)).toBe(0)
  })

  it('count the addresses of one IPv6 network as one', () => {
    const tries = new Tries({ each: 1, all: 30 })
    expect(tries.waitFor('2001:db8:1:2::5', 0)).toBe(0)
    expect(tries.waitFor('2001:db8:1:2:ffff::6', 1)).toBeGreaterThan(0)
    expect(tries.waitFor('2001:db8:1:3::5', 2)).toBe(0)
    expect([tries.waitFor('::ffff:10.0.0.1', 3), tries.waitFor('::ffff:10.0.0.2', 4)]).toEqual([0, 0])
  })
})

describe('pairing', () => {
  it('works once, soon, and for its workout', () => {
    const pairing = new Pairing()
    const code = pairing.begin(MINE, 0)
    expect([pairing.end('guessed', 1), pairing.end(code, 1), pairing.end(code, 2)]).toEqual([null, MINE, null])
    expect(pairing.end(pairing.begin(MINE, 0), 11 * 60_000)).toBeNull()
    const looked = pairing.begin(MINE, 0)
    expect([pairing.workoutOf(looked, 1), pairing.end(looked, 2)]).toEqual([MINE, MINE])
  })
})
