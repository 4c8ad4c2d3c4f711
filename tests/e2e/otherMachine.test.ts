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
require('node:http').request(url, { method, headers: { ...headers, ...(cookie ? { cookie } : {}),
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
    const paired = ask(path)
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

  it('a pass outlives the server', async () => {
    await jivet.kill()
    await jivet.start()
    expect(ask(`/w/${workout}/floor`, { cookie: device }).status).toBe(200)
  })
})
