// Jivet as another machine reaches it: from a network namespace of its own, over a cable of its own.
import { execFileSync } from 'node:child_process'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Jivet } from './jivet'

const PASSPHRASE = 'nine bollards'
const NAMESPACE = `jivet-${process.pid}`
/** Ends of the cable; a name has 15 letters at most. */
const HERE = `jv${process.pid}`,
  THERE = `${HERE}b`
const ip = (...args: string[]): void => void execFileSync('ip', args)

const jivet = new Jivet({ HOST: '0.0.0.0', JIVET_PASSPHRASE: PASSPHRASE })
const address = `10.77.${process.pid % 250}.1`
const there = `10.77.${process.pid % 250}.2`

beforeAll(async () => {
  ip('netns', 'add', NAMESPACE)
  ip('link', 'add', HERE, 'type', 'veth', 'peer', 'name', THERE)
  ip('link', 'set', THERE, 'netns', NAMESPACE)
  ip('addr', 'add', `${address}/24`, 'dev', HERE)
  ip('link', 'set', HERE, 'up')
  ip('netns', 'exec', NAMESPACE, 'ip', 'addr', 'add', `${there}/24`, 'dev', THERE)
  ip('netns', 'exec', NAMESPACE, 'ip', 'link', 'set', THERE, 'up')
  await jivet.start()
})
afterAll(async () => {
  await jivet.end()
  ip('netns', 'del', NAMESPACE)
})

interface Answer {
  status: number
  location: string | null
  cookie: string | null
  text: string
}

const ASK = `
const { url, method, cookie, body, headers } = JSON.parse(process.argv[1])
const { hostname, port } = new URL(url)
require('node:http').request({ hostname, port, path: url.slice(new URL(url).origin.length), method, headers: { ...headers, ...(cookie ? { cookie } : {}),
  ...(body ? { 'content-type': 'application/json' } : {}) } }, (answer) => {
  let text = ''
  answer.on('data', (chunk) => (text += chunk)).on('end', () => console.log(JSON.stringify({ status: answer.statusCode,
    location: answer.headers.location ?? null, cookie: answer.headers['set-cookie']?.[0].split(';')[0] ?? null, text })))
}).end(body)`

interface Call {
  method?: string
  cookie?: string | null
  body?: unknown
  headers?: Record<string, string>
}

/** Asks from the other machine. */
function ask(path: string, { method = 'GET', cookie = null, body, headers = {} }: Call = {}): Answer {
  const call = {
    url: `http://${address}:${jivet.port}${path}`,
    method,
    cookie,
    headers,
    body: body && JSON.stringify(body),
  }
  const said = execFileSync('ip', ['netns', 'exec', NAMESPACE, process.execPath, '-e', ASK, JSON.stringify(call)], {
    maxBuffer: 1 << 26,
  })
  return JSON.parse(said.toString()) as Answer
}

describe('from another machine', () => {
  let owner: string | null = null,
    device: string | null = null,
    workout = '',
    other = ''

  it('nothing is seen without the passphrase', () => {
    expect(ask('/')).toMatchObject({ status: 303, location: '/enter?to=%2F' })
    expect(ask('/api/workouts', { method: 'POST', body: { title: 'x' } })).toMatchObject({ status: 401 })
    expect(ask('/api/events').status).toBe(401)
    expect(ask('/enter').text).toContain('Come aboard')
    expect(ask('/', { headers: { host: `deck.example:${jivet.port}` } }).status).toBe(403)
    expect(ask('/', { headers: { 'x-jivet-device': 'x', 'x-jivet-from': '127.0.0.1' } }).status).toBe(303)
  })

  it('it is asked for, a few times a minute, and then is known', () => {
    expect(
      ask('/api/enter', {
        method: 'POST',
        body: { passphrase: PASSPHRASE },
        headers: { origin: 'http://deck.example' },
      }).status,
    ).toBe(403)
    const right = ask('/api/enter', { method: 'POST', body: { passphrase: PASSPHRASE } })
    expect(right).toMatchObject({ status: 204 })
    owner = right.cookie
    expect(ask('/', { cookie: owner }).text).toContain('Workouts')
    const wrong = Array.from(
      { length: 6 },
      () => ask('/api/enter', { method: 'POST', body: { passphrase: 'guess' } }).status,
    )
    expect(wrong).toEqual([403, 403, 403, 403, 429, 429])
    // Who has a pass is not asked again.
    expect(ask('/moves', { cookie: owner }).status).toBe(200)
  })

  it('a device is paired to one floor, once, and to nothing else', () => {
    const made = (title: string): string => {
      const plan = `title ${title}\ncircuit Main: 1 round, 20 on, 10 off\n  Jug lift\n`
      const answer = ask('/api/workouts', { method: 'POST', cookie: owner, body: { plan, name: 'plan.score.txt' } })
      return (JSON.parse(answer.text) as { id: string }).id
    }
    workout = made('Paired')
    other = made('Not paired')
    const { url, svg } = JSON.parse(
      ask(`/api/workouts/${workout}/pairing`, { method: 'POST', cookie: owner }).text,
    ) as { url: string; svg: string }
    expect(svg).toMatch(/^<svg/)
    const path = new URL(url).pathname
    // The owner's own browser goes to the floor as the owner, and leaves the code to the device.
    expect(ask(path, { cookie: owner })).toMatchObject({ status: 303, location: `/w/${workout}/floor`, cookie: null })
    const paired = ask(path, { headers: { 'user-agent': 'Mozilla/5.0 (iPad; CPU OS 19_0)' } })
    expect(paired).toMatchObject({ status: 303, location: `/w/${workout}/floor` })
    device = paired.cookie
    expect(ask(path).status).toBe(403)
    const floor = ask(`/w/${workout}/floor`, { cookie: device })
    expect([floor.status, floor.text.includes(`/w/${workout}/score`)]).toEqual([200, false])
    for (const shut of ['/', '/moves', `/w/${workout}/score`, `/w/${other}/floor`, `/api/workouts/${workout}/score`])
      expect(ask(shut, { cookie: device }).status, shut).toBe(403)
  })

  it('it runs its floor, and no other', () => {
    const wishes = { rehearsal: true, speed: 1, chirps: null }
    const open = (id: string, cookie: string | null): Answer =>
      ask(`/api/workouts/${id}/sessions`, { method: 'POST', cookie, body: wishes })
    expect(open(other, device).status).toBe(403)
    const opened = open(workout, device)
    expect(opened.status).toBe(201)
    const mine = (JSON.parse(opened.text) as { id: string }).id
    const theirs = (JSON.parse(open(other, owner).text) as { id: string }).id
    const body = { events: [], seenMs: 100, after: 0 }
    expect(ask(`/api/sessions/${mine}/events`, { method: 'POST', cookie: device, body }).status).toBe(200)
    expect(ask(`/api/sessions/${theirs}/events`, { method: 'POST', cookie: device, body }).status).toBe(403)
  })

  it('no way to write a path leads round the door', () => {
    for (const path of [
      '/_next/static/../../api/moves',
      '/_next/static/%2e%2e/%2e%2e/api/moves',
      '/enter/../api/moves',
    ])
      for (const cookie of [null, device]) expect(ask(path, { cookie }).status, path).toBe(400)
  })

  it("a device moves no session's clock beyond the server's, and adds nothing to what is over", () => {
    const opened = ask(`/api/workouts/${workout}/sessions`, {
      ...{ method: 'POST', cookie: owner, body: { rehearsal: true, speed: 1, chirps: null } },
    })
    // The one of the test above stands on the floor still.
    expect(opened.status).toBe(409)
    const floor = ask(`/w/${workout}/floor`, { cookie: device }).text
    const id =
      /\\"id\\":\\"([0-9a-f-]{36})\\",\\"score/.exec(floor)?.[1] ?? /sessions\/([0-9a-f-]{36})/.exec(floor)?.[1] ?? ''
    const tell = (cookie: string | null, body: unknown): Answer =>
      ask(`/api/sessions/${id}/events`, { method: 'POST', cookie, body })
    const told = tell(device, { events: [], seenMs: 86_400_000, after: 0 })
    expect((JSON.parse(told.text) as { nowMs: number }).nowMs).toBeLessThan(600_000)
    const line = (key: number, atMs: number, kind = 'end'): unknown => ({
      kind,
      key: `00000000-0000-4000-8000-00000000000${key}`,
      atMs,
    })
    expect(tell(device, { events: [line(1, 86_000_000)], seenMs: 0, after: 0 }).status).toBe(422)
    expect(tell(owner, { events: [line(2, 1000)], seenMs: 1000, after: 0 }).status).toBe(200)
    // A line that was on its way is taken; ten minutes later none is.
    expect(tell(device, { events: [line(3, 900)], seenMs: 1000, after: 0 }).status).toBe(200)
  })

  it('a device has lines said, as many as a session needs', () => {
    const script = `
      const [address, cookie] = process.argv.slice(1)
      Promise.all(Array.from({ length: 260 }, (_, at) =>
        fetch(address + '/api/say?text=', { headers: { cookie } }).then(({ status }) => status)))
        .then(() => fetch(address + '/api/say?text=Go', { headers: { cookie } }))
        .then(({ status }) => console.log(status))`
    const said = (times: number): number => {
      const code = script.replace('260', String(times))
      const at = `http://${address}:${jivet.port}`
      return Number(
        execFileSync('ip', ['netns', 'exec', NAMESPACE, process.execPath, '-e', code, at, device ?? '']).toString(),
      )
    }
    expect(said(3)).toBe(200)
    expect(said(260)).toBe(429)
  })

  it('a pass outlives the server', async () => {
    await jivet.kill()
    await jivet.start()
    expect(ask(`/w/${workout}/floor`, { cookie: device }).status).toBe(200)
  })

  it('devices have names, can be renamed and removed, and the owner can log out', () => {
    interface Inside {
      passes: { id: string; name: string; kind: string }[]
      own: string
    }
    const inside = (): Inside => JSON.parse(ask('/api/passes', { cookie: owner }).text) as Inside
    const pad = inside().passes.find(({ kind }) => kind === 'device')
    expect(pad?.name).toBe('iPad')
    expect(
      ask(`/api/passes/${pad?.id}`, { method: 'PATCH', cookie: owner, body: { name: 'Pad by the mat' } }).status,
    ).toBe(204)
    expect(inside().passes.map(({ name }) => name)).toContain('Pad by the mat')
    expect(ask(`/api/passes/${pad?.id}`, { method: 'DELETE', cookie: device }).status).toBe(403)
    expect(ask(`/api/passes/${pad?.id}`, { method: 'DELETE', cookie: owner }).status).toBe(204)
    expect(ask(`/w/${workout}/floor`, { cookie: device }).status).toBe(303)
    expect(ask(`/api/passes/${pad?.id}`, { method: 'DELETE', cookie: owner }).status).toBe(404)
    expect(ask(`/api/passes/${inside().own}`, { method: 'DELETE', cookie: owner })).toMatchObject({
      status: 204,
      cookie: 'jivet-pass=',
    })
    expect(ask('/moves', { cookie: owner }).status).toBe(303)
  })

  it('whoever knows no passphrase cannot fill the memory', async () => {
    const sizes = ask('/api/enter', { method: 'POST', body: { passphrase: 'x'.repeat(100_000) } })
    expect([413, 429]).toContain(sizes.status)
  })
})
