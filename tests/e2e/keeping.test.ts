// A real Jivet that is killed, asked wrongly and read from many tabs: what it keeps, whom it lets in, how it returns.
import { spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { mkdirSync, readdirSync, readFileSync, statfsSync, statSync, writeFileSync } from 'node:fs'
import { request } from 'node:http'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Jivet } from './jivet'

const jivet = new Jivet()
beforeAll(async () => {
  // As a first start leaves it that was killed while it made its cluster.
  mkdirSync(join(jivet.home, 'database.making'), { recursive: true })
  writeFileSync(join(jivet.home, 'database.making', 'PG_VERSION'), '15\n')
  await jivet.start()
})
afterAll(() => jivet.end())

const json = { 'content-type': 'application/json' }
async function make(title: string): Promise<string> {
  const answer = await fetch(`${jivet.url}/api/workouts`, {
    method: 'POST',
    headers: json,
    body: JSON.stringify({ title }),
  })
  return ((await answer.json()) as { id: string }).id
}
async function titleOf(id: string): Promise<string> {
  const answer = await fetch(`${jivet.url}/api/workouts/${id}/score`)
  return ((await answer.json()) as { score: { title: string } }).score.title
}
async function until(what: () => boolean | Promise<boolean>, withinMs = 20_000): Promise<void> {
  for (const end = Date.now() + withinMs; Date.now() < end; await new Promise((done) => setTimeout(done, 100)))
    if (await Promise.resolve(what()).catch(() => false)) return
  throw new Error('it did not come to it')
}
const healthy = async (): Promise<boolean> => (await fetch(`${jivet.url}/api/health`)).ok
const part = (pattern: RegExp): number => jivet.processes().find(({ command }) => pattern.test(command))?.pid ?? 0
const SERVER = /src\/server\/serve\.ts/

interface Raw {
  status: number
  headers: Record<string, string | string[] | undefined>
  bytes: number
}
/** A request as no browser would send it. */
function ask(method: string, path: string, chunks: Iterable<Buffer> = []): Promise<Raw> {
  return new Promise((resolve, reject) => {
    const asked = request({ host: '127.0.0.1', port: jivet.port, method, path, headers: method === 'GET' ? {} : json })
    asked.on('response', (answer) => {
      let bytes = 0
      answer.on('data', (chunk: Buffer) => (bytes += chunk.length))
      answer.on('end', () => resolve({ status: answer.statusCode ?? 0, headers: answer.headers, bytes }))
      answer.on('error', reject)
    })
    asked.on('error', reject)
    for (const chunk of chunks) asked.write(chunk)
    asked.end()
  })
}

describe('the data folder', () => {
  it('can be read by nobody else, and nothing but the start script runs as root', () => {
    // Files come and go meanwhile, which `find` takes as it is.
    const open = spawnSync('find', [jivet.home, '-perm', '/077']).stdout.toString()
    expect([open, (statSync(jivet.home).mode & 0o777).toString(8)]).toEqual(['', '700'])
    const running = jivet.processes()
    expect(running.length).toBeGreaterThan(2)
    if (process.getuid?.() === 0) expect(running.filter(({ uid }) => uid === 0)).toEqual([])
  })
  it('is held by one: of two starts at once, and beside a running one, the second says who holds it', async () => {
    const env = { ...process.env, PORT: String(jivet.port + 1), JIVET_HOME: jivet.home }
    const second = spawn(process.execPath, ['scripts/start.mjs'], { env, stdio: ['ignore', 'ignore', 'pipe'] })
    let said = ''
    second.stderr.on('data', (text: Buffer) => (said += text.toString()))
    const [code] = (await once(second, 'exit')) as [number]
    expect([code, said]).toEqual([
      1,
      expect.stringContaining(`in use by the Jivet with process ${jivet.pid}`) as string,
    ])
  })
})

describe('every answer', () => {
  it.each(['/', '/moves', '/nowhere', '/api/health', '/api/nowhere', '/_next/static/nowhere.js'])(
    'to %s says what it may load, from where it may be framed, and what it is',
    async (path) => {
      const { headers } = await ask('GET', path)
      expect(headers['content-security-policy']).toMatch(/frame-ancestors 'none'/)
      expect(headers).toMatchObject({ 'x-content-type-options': 'nosniff', 'referrer-policy': 'no-referrer' })
    },
  )
  it('with a page allows scripts by a number used once, and the page runs under it', async () => {
    const policies = await Promise.all(
      [1, 2].map(async () => (await ask('GET', '/')).headers['content-security-policy']),
    )
    expect(policies[0]).toMatch(/script-src 'self' 'nonce-[\w+/=]{20,}' 'strict-dynamic'/)
    expect(policies[0]).not.toBe(policies[1])
    const page = await jivet.page()
    const complaints: string[] = []
    page.on('console', (message) => message.type() === 'error' && complaints.push(message.text()))
    page.on('pageerror', (error) => complaints.push(error.message))
    await page.goto(`${jivet.url}/w/${await make('Under the policy')}/score`)
    await page.getByText('Findings appear here').waitFor()
    await page.goto(`${jivet.url}/moves`)
    await page.getByRole('heading', { level: 1 }).waitFor()
    expect(complaints).toEqual([])
    await page.close()
  })
  it.each([
    ['TRACE', '/', 405],
    ['GET', '/%', 400],
    ['GET', '/%c0%80', 400],
    ['GET', '/a%00b', 400],
    ['GET', '/w/%E0%A4%A/score', 400],
    ['GET', '/w/none/score', 404],
  ])('to %s %s is %i', async (method, path, status) => expect((await ask(method, path)).status).toBe(status))
  it('to a body that says no length is a refusal as soon as it is too much', async () => {
    const chunk = Buffer.alloc(1024 * 1024, 32)
    const chunks = Array.from({ length: 60 }, () => chunk)
    const answer = await ask('POST', '/api/workouts', chunks).catch((error: NodeJS.ErrnoException) => error.code)
    // The server may well close before all was sent.
    expect(['EPIPE', 'ECONNRESET', 413]).toContain(typeof answer === 'object' ? answer.status : answer)
    expect(await healthy()).toBe(true)
  })
  it.each(['half \ud83d of it', 'nul \0 in it'])('to text that cannot be kept is a sentence (%j)', async (title) => {
    const answer = await fetch(`${jivet.url}/api/workouts`, {
      method: 'POST',
      headers: json,
      body: JSON.stringify({ title }),
    })
    expect(answer.status).toBe(400)
    expect(await answer.json()).toMatchObject({ problem: { code: 'unstorable-text', place: 'title' } })
  })
  it.each(['/?search=%00', '/api/moves/uses?name=%00', '/api/looks?name=a%00b', '/api/music?name=%00', '/w/%00/score'])(
    'is refused where no database takes it: %s',
    async (path) => {
      expect(
        (await fetch(`${jivet.url}${path}`, { method: path.includes('music') ? 'POST' : 'GET' })).status,
      ).toBeLessThan(500)
    },
  )
})

describe('an upload', () => {
  const begin = async (id: string, headers: Record<string, string>): Promise<number> => {
    const encoded = (text: string): string => Buffer.from(text).toString('base64')
    const metadata = `filename ${encoded('deck.mp4')},workoutId ${encoded(id)}`
    const all = { 'tus-resumable': '1.0.0', 'upload-metadata': metadata, ...headers }
    return (await fetch(`${jivet.url}/api/uploads`, { method: 'POST', headers: all })).status
  }
  it('says its length when it begins, and has its room from then on', async () => {
    const id = await make('Room for one')
    expect(await begin(id, { 'upload-defer-length': '1' })).toBe(411)
    const { bavail, bsize } = statfsSync(jivet.home)
    // Within what one file may hold.
    const most = Math.min(Math.floor(bavail * bsize * 0.6), 500 * 1024 ** 3)
    expect(await begin(id, { 'upload-length': String(most) })).toBe(201)
    if (most * 2 > bavail * bsize) expect(await begin(id, { 'upload-length': String(most) })).toBe(507)
    expect(await begin(id, { 'upload-length': '1000' })).toBe(201)
  })
})

describe('a download', () => {
  it('has its length, and a HEAD opens nothing', async () => {
    const page = await jivet.page()
    await page.goto(jivet.url)
    const href = await page
      .getByRole('link', { name: /Deck Hours 12/ })
      .first()
      .getAttribute('href')
    await page.close()
    const id = href?.split('/')[2] ?? ''
    const progress = async () =>
      (await (await fetch(`${jivet.url}/api/workouts/${id}/progress`)).json()) as {
        footage: { id: string; state: string } | null
      }
    let footageId = ''
    await until(async () => {
      const { footage } = await progress()
      footageId = footage?.id ?? ''
      return footage?.state === 'ready'
    }, 60_000)
    const path = `/api/footage/${footageId}/picture`
    const whole = await ask('GET', path)
    expect([whole.status, Number(whole.headers['content-length'])]).toEqual([200, whole.bytes])
    const descriptors = (): number => readdirSync(`/proc/${part(SERVER)}/fd`).length
    const before = descriptors()
    for (let asked = 0; asked < 100; asked++) {
      const { status, headers, bytes } = await ask('HEAD', path)
      expect([status, Number(headers['content-length']), bytes]).toEqual([200, whole.bytes, 0])
    }
    expect(descriptors() - before).toBeLessThan(20)
  })
})

describe('the stream of changes', () => {
  it('outlives 240 readers that leave at once', async () => {
    const leave = async (): Promise<void> => {
      const halt = new AbortController()
      const opened = fetch(`${jivet.url}/api/events`, { signal: halt.signal }).catch(() => {})
      setTimeout(() => halt.abort(), Math.random() * 30)
      await opened
    }
    for (let round = 0; round < 12; round++) await Promise.all(Array.from({ length: 20 }, leave))
    const halt = new AbortController()
    const stream = (await fetch(`${jivet.url}/api/events`, { signal: halt.signal })).body?.getReader()
    expect(new TextDecoder().decode((await stream?.read())?.value)).toContain('all')
    halt.abort()
    expect(part(SERVER)).not.toBe(0)
  })
  it('is one for all tabs: the ninth tab loads and hears like the first', { timeout: 120_000 }, async () => {
    const id = await make('In nine tabs')
    const first = await jivet.page()
    const tabs = [first, ...(await Promise.all(Array.from({ length: 8 }, () => jivet.page(first.context()))))]
    for (const tab of tabs) await tab.goto(`${jivet.url}/w/${id}/sync`)
    for (const tab of tabs) await tab.getByRole('heading', { name: 'Add footage' }).waitFor()
    await first
      .locator('input[type=file]')
      .setInputFiles({ name: 'note.txt', mimeType: 'text/plain', buffer: Buffer.from('no film') })
    for (const tab of tabs) await tab.getByText('This is not a video').waitFor({ timeout: 30_000 })
    await Promise.all(tabs.slice(1).map((tab) => tab.close()))
    await first.getByRole('button', { name: 'Try again' }).waitFor()
    await first.getByRole('button', { name: 'Forget it' }).click()
    await first.getByText('This is not a video').waitFor({ state: 'detached' })
    await first.close()
  })
})

describe('two tabs and a slow network', () => {
  const retitle = async (page: Page, title: string): Promise<void> => {
    const name = page.getByLabel('Name', { exact: true }).first()
    // What is typed before the page is alive is typed into nothing.
    await expect
      .poll(() => name.evaluate((one) => Object.keys(one).some((key) => key.startsWith('__react'))), {
        timeout: 20_000,
      })
      .toBe(true)
    await name.fill(title)
  }
  it('a lost answer, two quick edits and a fast reload are no conflict', async () => {
    const id = await make('Slow')
    const page = await jivet.page()
    await page.goto(`${jivet.url}/w/${id}/score`)
    let lose = 1
    await page.route('**/score', async (route) => {
      if (route.request().method() !== 'PUT' || lose-- <= 0) return route.continue()
      // It reaches the server, and the answer never the page.
      await route.fetch()
      await route.abort('connectionreset')
    })
    await retitle(page, 'First')
    await page.keyboard.press('Enter')
    await until(async () => (await titleOf(id)) === 'First')
    await retitle(page, 'Second')
    await page.keyboard.press('Enter')
    await until(async () => (await titleOf(id)) === 'Second')
    await page.getByText('Saved', { exact: true }).waitFor()

    lose = 1
    await retitle(page, 'Third')
    await page.keyboard.press('Enter')
    await until(async () => (await titleOf(id)) === 'Third')
    await page.reload()
    await retitle(page, 'Fourth')
    await page.keyboard.press('Enter')
    await until(async () => (await titleOf(id)) === 'Fourth')
    expect(await page.getByText('Changed in another tab').count()).toBe(0)
    await page.close()
  })
  it('what is typed is on the server though the page is left at once, and is no conflict when it is back', async () => {
    const id = await make('Left')
    const page = await jivet.page()
    for (const title of ['Typed and gone', 'Typed and gone again']) {
      await page.goto(`${jivet.url}/w/${id}/score`)
      await retitle(page, title)
      await page.keyboard.press('Enter')
      await page.goto('about:blank')
      await until(async () => (await titleOf(id)) === title)
    }
    await page.goto(`${jivet.url}/w/${id}/score`)
    await retitle(page, 'Typed after')
    await page.keyboard.press('Enter')
    await until(async () => (await titleOf(id)) === 'Typed after')
    await page.close()
  })
  it('what another tab saved is asked about, and either answer loses nothing unasked', async () => {
    const id = await make('Both')
    const one = await jivet.page()
    await one.goto(`${jivet.url}/w/${id}/score`)
    // What this tab keeps in the browser, the other one finds.
    await retitle(one, 'Before both')
    await one.keyboard.press('Enter')
    await one.getByText('Saved', { exact: true }).waitFor()
    await until(async () => (await titleOf(id)) === 'Before both')
    const other = await jivet.page(one.context())
    await other.goto(`${jivet.url}/w/${id}/score`)
    await retitle(one, 'From one')
    await one.keyboard.press('Enter')
    await until(async () => (await titleOf(id)) === 'From one')
    await retitle(other, 'From the other')
    await other.keyboard.press('Enter')
    await other.getByRole('dialog', { name: 'Changed in another tab' }).waitFor()
    expect(await titleOf(id)).toBe('From one')
    await other.getByRole('button', { name: 'Keep what I have here' }).click()
    await until(async () => (await titleOf(id)) === 'From the other')
    await one.context().close()
  })
})

describe('what dies', () => {
  it('comes back: the database, with pages that go on', { timeout: 90_000 }, async () => {
    const id = await make('Before the database died')
    const page = await jivet.page()
    await page.goto(`${jivet.url}/w/${id}/score`)
    await page.getByText('Saved', { exact: true }).waitFor()
    process.kill(part(/bin\/postgres /), 'SIGKILL')
    await page.getByLabel('Name', { exact: true }).first().fill('While it was away')
    await page.keyboard.press('Enter')
    await until(async () => (await titleOf(id)) === 'While it was away', 40_000)
    await page.getByText('Saved', { exact: true }).waitFor()
    await page.close()
  })
  it('comes back: the server, and the worker', { timeout: 90_000 }, async () => {
    for (const pattern of [SERVER, /src\/server\/worker\.ts/]) {
      const before = part(pattern)
      process.kill(before, 'SIGKILL')
      await until(() => part(pattern) !== before && part(pattern) !== 0)
    }
    await until(healthy)
  })
  it(
    'takes all with it when it is the start script, which can start again at once on the same port',
    { timeout: 120_000 },
    async () => {
      const id = await make('Kept')
      await jivet.kill()
      await jivet.start()
      expect(await titleOf(id)).toBe('Kept')
      expect(jivet.processes().filter(({ command }) => SERVER.test(command))).toHaveLength(1)
      await jivet.stop()
      expect(jivet.processes()).toEqual([])
      await jivet.start()
      expect(readFileSync(join(jivet.home, 'database-password'), 'utf8')).toMatch(/^[0-9a-f]{48}$/)
    },
  )
})
