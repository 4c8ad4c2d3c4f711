// The attack on the door: every route of the application, with every method, as nobody, as a paired phone and as the
// owner, by every way to write a path that somebody thought of. Prints how many requests reached what they must not.
// Starts a Jivet of its own, on a folder of its own. `JIVET_TEST_FILMS=FOLDER npx tsx bench/door.ts`
import { readdirSync, readFileSync } from 'node:fs'
import { connect } from 'node:net'
import { dirname, join } from 'node:path'
import { FLOOR, OPEN, type Listed } from '../src/server/access/entry'
import { Jivet } from '../tests/e2e/jivet'

const PASSPHRASE = 'nine bollards'
const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS'] as const
const APP = join(import.meta.dirname, '..', 'src', 'app')

/** Routes as their folders name them. */
const routes = readdirSync(APP, { recursive: true, encoding: 'utf8' })
  .filter((file) => /(?:^|\/)(?:page\.tsx|route\.ts)$/.test(file))
  .map((file) => `/${dirname(file)}`.replace(/^\/\.$/, '/'))

/** Ways to write a path; `as it is` first. What they lead to is the path, or nothing. */
const WAYS: Record<string, (path: string) => string> = {
  'as it is': (path) => path,
  'below static': (path) => `/_next/static/../..${path}`,
  'below static, encoded': (path) => `/_next/static/%2e%2e/%2e%2e${path}`,
  'below static, capitals': (path) => `/_next/static/%2E%2E/%2E%2E${path}`,
  'below static, half encoded': (path) => `/_next/static/.%2e/%2e.${path}`,
  'below static, further down': (path) => `/_next/static/x/../../..${path}`,
  'below static, encoded slashes': (path) => `/_next/static/..%2f..${path.replaceAll('/', '%2f')}`,
  'below static, backslashes': (path) => `/_next/static/..\\..${path.replaceAll('/', '\\')}`,
  'below static, encoded backslashes': (path) => `/_next/static/..%5c..%5c${path.slice(1)}`,
  'below static, twice encoded': (path) => `/_next/static/%252e%252e/%252e%252e${path}`,
  'below static, parameters': (path) => `/_next/static/..;/..;${path}`,
  'below enter': (path) => `/enter/..${path}`,
  'below health': (path) => `/api/health/../..${path}`,
  'two slashes': (path) => `/${path}`,
  'two slashes within': (path) => path.replace(/(.)\//, '$1//'),
  'a dot': (path) => `/.${path}`,
  'a slash behind': (path) => `${path}/`,
  'a letter encoded': (path) => path.replace(/[a-z]/, (letter) => `%${letter.charCodeAt(0).toString(16)}`),
  'a letter encoded twice': (path) => path.replace(/[a-z]/, (letter) => `%25${letter.charCodeAt(0).toString(16)}`),
  capitals: (path) => path.replace(/[a-z]/, (letter) => letter.toUpperCase()),
  'a whole address': (path) => `http://127.0.0.1${path}`,
  'static in the query': (path) => `${path}?/_next/static/x`,
  'static as a fragment': (path) => `${path}#/_next/static/x`,
  'an image of it': (path) => `/_next/image?url=${encodeURIComponent(path)}&w=64&q=75`,
  'data of it': (path) => `/_next/data/x${path}.json`,
  'its server components': (path) => `${path}.rsc`,
  'its segments': (path) => `${path}.segments/_tree.segment.rsc`,
  'a zero behind': (path) => `${path}%00`,
  'a zero behind static': (path) => `/_next/static/%00/../../..${path}`,
}

/** Headers that some part of a server may take for its own. */
const HEADERS: Record<string, string> = {
  'x-jivet-device': '',
  'x-jivet-pass': '11111111-1111-4111-8111-111111111111',
  'x-middleware-subrequest': 'middleware:middleware:middleware:middleware:middleware',
  'x-matched-path': '/enter',
  'x-invoke-path': '/enter',
  'x-nextjs-data': '1',
  'x-original-url': '/enter',
  'x-rewrite-url': '/enter',
  'x-forwarded-for': '127.0.0.1',
}

const jivet = new Jivet({ HOST: '0.0.0.0', JIVET_PASSPHRASE: PASSPHRASE })

/** Sends a request as it stands. @returns its status, or 0 where the connection was closed without one. */
function send(method: string, target: string, headers: Record<string, string>, body = ''): Promise<[number, string]> {
  return new Promise((done) => {
    const socket = connect(jivet.port, '127.0.0.1')
    let answer = ''
    const end = (): void => {
      clearTimeout(limit)
      socket.destroy()
      done([Number(/^HTTP\/1\.1 (\d+)/.exec(answer)?.[1] ?? 0), answer])
    }
    const limit = setTimeout(end, 10_000)
    socket.on('data', (chunk: Buffer) => {
      answer += chunk.toString('latin1')
      // A stream of events does not end by itself.
      if (/text\/event-stream/.test(answer)) end()
    })
    socket.on('close', end).on('error', end)
    const head = {
      host: `127.0.0.1:${jivet.port}`,
      connection: 'close',
      'content-type': 'application/json',
      ...headers,
    }
    const lines = Object.entries({ ...head, 'content-length': String(body.length) }).map(
      ([name, it]) => `${name}: ${it}`,
    )
    socket.write(`${method} ${target} HTTP/1.1\r\n${lines.join('\r\n')}\r\n\r\n${body}`, 'latin1')
  })
}

const cookieIn = (answer: string): string => /set-cookie: (jivet-pass=[^;]+)/i.exec(answer)?.[1] ?? ''
const bodyIn = <T>(answer: string): T => JSON.parse(answer.slice(answer.indexOf('{'), answer.lastIndexOf('}') + 1)) as T

await jivet.start()
try {
  const [, entered] = await send('POST', '/api/enter', {}, JSON.stringify({ passphrase: PASSPHRASE }))
  const owner = cookieIn(entered)
  const made = async (title: string): Promise<string> => {
    const plan = `title ${title}\ncircuit Main: 1 round, 20 on, 10 off\n  Jug lift\n`
    const body = JSON.stringify({ plan, name: 'plan.score.txt' })
    return bodyIn<{ id: string }>((await send('POST', '/api/workouts', { cookie: owner }, body))[1]).id
  }
  const [own, other] = [await made('Paired'), await made('Not paired')]
  const { url } = bodyIn<{ url: string }>((await send('POST', `/api/workouts/${own}/pairing`, { cookie: owner }))[1])
  const phone = cookieIn((await send('GET', new URL(url).pathname, {}))[1])
  if (!owner || !phone) throw new Error('no pass was got: nothing can be measured')

  const listed = (list: readonly Listed[], route: string, method: string): boolean =>
    list.some((one) => one.route === route && one.methods.includes(method))
  const asks = [
    { who: 'nobody', cookie: '', ids: [own], allowed: [OPEN] },
    { who: 'phone, its own workout', cookie: phone, ids: [own], allowed: [OPEN, FLOOR] },
    { who: 'phone, another workout', cookie: phone, ids: [other], allowed: [OPEN] },
  ]
  let tried = 0
  const bypasses: string[] = []
  for (const { who, cookie, ids, allowed } of asks)
    for (const route of routes)
      for (const [way, written] of Object.entries(WAYS))
        for (const method of way === 'as it is' ? METHODS : (['GET', 'POST', 'DELETE'] as const)) {
          if (allowed.some((list) => listed(list, route, method))) continue
          // A line for the ear is about no workout; nor is the page without anything below it.
          if (who === 'phone, another workout' && listed(FLOOR, route, method) && !route.includes('[id]')) continue
          const path = route.replaceAll(/\[\[?\.*\w+\]\]?/g, ids[0] ?? '')
          const [status, answer] = await send(method, written(path), cookie ? { cookie } : {})
          tried++
          const isClosed = status === 0 || status === 400 || status === 401 || status === 403 || status === 405
          const isAsked = status === 303 && /\r\nlocation: \/enter\?/i.test(answer)
          // Next's own answer to what is below a path that is open: nothing of the application stands behind it.
          const isNothing = status === 404 && written(path).startsWith('/_next/static/')
          if (!isClosed && !isAsked && !isNothing)
            bypasses.push(`${who}: ${method} ${written(path)} (${way}): ${status}`)
        }
  for (const [name, value] of Object.entries(HEADERS))
    for (const path of ['/', '/api/moves', `/w/${own}/score`]) {
      const [status] = await send('GET', path, { [name]: value || own })
      tried++
      if (status !== 303 && status !== 401) bypasses.push(`nobody: GET ${path} with ${name}: ${status}`)
    }
  // The owner reaches all of it; else nothing was measured.
  const shut: string[] = []
  for (const route of routes.filter((one) => readHandler(one).includes('GET'))) {
    const path = route.replaceAll(/\[\[?\.*\w+\]\]?/g, own)
    const [status] = await send('GET', path, { cookie: owner })
    if (status === 401 || status === 403 || status === 0) shut.push(`owner: GET ${path}: ${status}`)
  }
  console.log([...bypasses.slice(0, 50), ...shut].join('\n'))
  console.log(
    `${routes.length} routes, ${tried} requests: ${bypasses.length} bypasses; ${shut.length} shut to the owner`,
  )
  process.exitCode = bypasses.length || shut.length ? 1 : 0
} finally {
  await jivet.end()
}

function readHandler(route: string): string {
  for (const name of ['route.ts', 'page.tsx'])
    try {
      const text = readFileSync(join(APP, route, name), 'utf8')
      return name === 'page.tsx' ? 'GET' : text
    } catch {
      /* it is the other kind */
    }
  return ''
}
