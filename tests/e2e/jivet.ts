// Starts a Jivet of its own for the browser tests: a fresh data folder, a free port, the real start script.
import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { cpSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { createServer, type AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { basename, join } from 'node:path'
import { chromium, type Browser, type BrowserContext, type Page, type Response } from 'playwright-core'
import { afterAll, beforeAll } from 'vitest'

/** Filmed once for all tests by `npm test`; see scripts/test.mjs. */
export const FILMS = process.env.JIVET_TEST_FILMS ?? ''
export const FILM = join(FILMS, 'deck-hours.mp4')

/** Debian's browser, as these tests start it. */
export const CHROMIUM = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--autoplay-policy=no-user-gesture-required',
    // A simulated microphone, which beeps once a second.
    '--use-fake-ui-for-media-stream',
    '--use-fake-device-for-media-stream',
  ],
}

export interface Truth {
  durationMs: number
  boundaries: { segmentId: string; edge: 'start' | 'end'; footageMs: number; silent: boolean }[]
}
export const truthOf = (film: string): Truth =>
  JSON.parse(readFileSync(film.replace(/\.mp4$/, '.truth.json'), 'utf8')) as Truth

export class Jivet {
  readonly home = mkdtempSync(join(tmpdir(), 'jivet-test-'))
  port = 0
  private process: ChildProcess | null = null
  private browser: Browser | null = null

  /** @param settings of the environment, besides its port and its folder. */
  constructor(private readonly settings: Record<string, string> = {}) {}

  get url(): string {
    return `http://127.0.0.1:${this.port}`
  }

  /** Starts the server, or starts it again on the same data. */
  async start(): Promise<void> {
    this.port ||= await freePort()
    cpSync(FILMS, join(this.home, 'demo', basename(FILMS)), { recursive: true })
    const child = spawn(process.execPath, ['scripts/start.mjs'], {
      env: { ...process.env, ...this.settings, PORT: String(this.port), JIVET_HOME: this.home },
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    this.process = child
    await new Promise<void>((ready, fail) => {
      child.stdout?.on('data', (text: Buffer) => {
        if (text.toString().includes('Jivet is ready')) ready()
      })
      child.once('exit', (code) => fail(new Error(`the server ended with ${code} before it was ready`)))
    })
  }

  /** The start script's own process. */
  get pid(): number {
    return this.process?.pid ?? 0
  }

  /** Processes that belong to this data folder, whoever runs them. */
  processes(): { pid: number; uid: number; command: string }[] {
    return readdirSync('/proc')
      .filter((name) => /^\d+$/.test(name))
      .flatMap((name) => {
        try {
          const environment = readFileSync(`/proc/${name}/environ`, 'utf8').split('\0')
          if (!environment.includes(`JIVET_OWNED_BY=${this.home}`)) return []
          const command = readFileSync(`/proc/${name}/cmdline`, 'utf8').replaceAll('\0', ' ')
          return [{ pid: Number(name), uid: statSync(`/proc/${name}`).uid, command }]
        } catch {
          return []
        }
      })
  }

  /** Ends the start script as a crash of the machine would: without a word. */
  async kill(): Promise<void> {
    const child = this.process
    this.process = null
    if (!child) return
    child.kill('SIGKILL')
    await once(child, 'exit')
  }

  /** As Ctrl-C does. */
  async stop(): Promise<void> {
    const child = this.process
    this.process = null
    if (!child || child.exitCode !== null) return
    child.kill('SIGINT')
    await once(child, 'exit')
  }

  /** @param context whose tab it is. Default: a browser of its own, as far as what it keeps goes. */
  async page(context?: BrowserContext): Promise<Page> {
    this.browser ??= await chromium.launch(CHROMIUM)
    const page = await (
      context ?? (await this.browser.newContext({ viewport: { width: 1280, height: 800 } }))
    ).newPage()
    page.setDefaultTimeout(60_000)
    return page
  }

  /** Closes the browser; the server goes on for whoever comes next. */
  async leave(): Promise<void> {
    await this.browser?.close()
    this.process?.unref()
  }

  async end(): Promise<void> {
    await this.browser?.close()
    await this.stop()
    rmSync(this.home, { recursive: true, force: true })
  }
}

/**
 * A Jivet for one file of tests, with a page opened before the first and everything ended after the last.
 * @param settings of its environment.
 */
export function startedJivet(
  onPage: (page: Page) => Promise<void> | void,
  settings: Record<string, string> = {},
): Jivet {
  const jivet = new Jivet(settings)
  beforeAll(async () => {
    await jivet.start()
    await onPage(await jivet.page())
  })
  afterAll(() => jivet.end())
  return jivet
}

interface Shared {
  port: number
  pid: number
  home: string
}

/**
 * One Jivet for all files of tests that leave no more behind than workouts of their own: the first of them starts it,
 * `tests/sharedServer.ts` ends it. Each has a browser of its own.
 */
export function sharedJivet(onPage: (page: Page) => Promise<void> | void): Jivet {
  const jivet = new Jivet()
  beforeAll(async () => {
    const known = existsSync(SHARED) ? (JSON.parse(readFileSync(SHARED, 'utf8')) as Shared) : null
    if (known) jivet.port = known.port
    else {
      await jivet.start()
      writeFileSync(SHARED, JSON.stringify({ port: jivet.port, pid: jivet.pid, home: jivet.home } satisfies Shared))
    }
    await onPage(await jivet.page())
  })
  afterAll(() => jivet.leave())
  return jivet
}

/** Where the one that is shared is written down. */
export const SHARED = join(import.meta.dirname, '..', '..', 'tmp', 'shared-jivet.json')

/** Ends the one that is shared, if there is any. */
export async function endShared(): Promise<void> {
  if (!existsSync(SHARED)) return
  const { pid, home } = JSON.parse(readFileSync(SHARED, 'utf8')) as Shared
  rmSync(SHARED)
  try {
    process.kill(pid, 'SIGINT')
    for (let tries = 0; tries < 100; tries++) {
      process.kill(pid, 0)
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
  } catch {
    /* It has ended. */
  }
  rmSync(home, { recursive: true, force: true })
}

/** A setting as a page saved it. */
export const savedIn = <T = unknown>(saved: Response): T => (saved.request().postDataJSON() as { now: T }).now

/** Brings the page's video to an instant, and waits until it is there. */
export const seekVideo = (page: Page, ms: number): Promise<void> =>
  page.locator('video').evaluate(
    (video: HTMLVideoElement, seconds) =>
      new Promise<void>((done) => {
        video.addEventListener('seeked', () => done(), { once: true })
        video.currentTime = seconds
      }),
    ms / 1000,
  )

/** Adds a section by the menu of formats. @param format its name there, e.g. `Circuit`. */
export async function addSection(page: Page, format: string): Promise<void> {
  await page.getByRole('button', { name: 'Add section' }).click()
  await page.getByRole('menuitem', { name: new RegExp(`^${format}`) }).click()
}

export function freePort(): Promise<number> {
  return new Promise((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo
      probe.close(() => done(port))
    })
  })
}
