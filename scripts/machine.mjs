// What the machine has to have: Debian packages, node_modules, the build, the demo's film. Plain JavaScript, as it runs
// before anything is installed.
import { execFileSync, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import {
  chmodSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { installServerPackages, postgresVersions } from './cluster.mjs'
import { isRoot, kept, may } from './folder.mjs'

export const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '..')
const has = (tool) => spawnSync('sh', ['-c', `command -v ${tool}`]).status === 0

const NEEDS = [
  { package: 'ffmpeg', there: () => has('ffmpeg') && has('ffprobe') },
  { package: 'flite', there: () => has('flite') },
  { package: 'espeak-ng', there: () => has('espeak-ng') },
  { package: 'postgresql', there: () => postgresVersions().length > 0 },
]
const TEST_NEEDS = [
  { package: 'chromium', there: () => has('chromium') },
  { package: 'iproute2', there: () => has('ip') },
]

/**
 * Installs what is missing of Debian's packages. Exits with one clear sentence where it may not.
 * @param withDatabase false where the database is another machine's.
 */
export function ensurePackages({ forTests = false, withDatabase = true } = {}) {
  const missing = [...NEEDS, ...(forTests ? TEST_NEEDS : [])]
    .filter((need) => (withDatabase || need.package !== 'postgresql') && !need.there())
    .map((need) => need.package)
  if (!missing.length) return
  if (!isRoot) {
    console.error(
      `Jivet needs the Debian packages ${missing.join(', ')}. Ask an administrator to run: apt-get install ${missing.join(' ')}`,
    )
    process.exit(1)
  }
  console.log(`Installing ${missing.join(', ')} ...`)
  installServerPackages(missing)
}

/** How many workers this machine runs: `JIVET_WORKERS`, 1 where it is not set. Exits where it is no such number. */
export function workers() {
  const asked = process.env.JIVET_WORKERS ?? '1'
  if (/^[1-9]\d?$/.test(asked)) return Number(asked)
  console.error(`JIVET_WORKERS is a number from 1 to 99, not "${asked}".`)
  process.exit(1)
}

const stampOf = (...files) => {
  const sum = createHash('sha256')
  for (const file of files) sum.update(readFileSync(file))
  return sum.digest('hex')
}

/**
 * Installs packages when node_modules does not belong to package-lock.json and patches/. Not `npm ci`: it refuses a
 * lock file without the builds for other systems, which not every registry carries (docs/decisions/003).
 */
export function ensureModules() {
  const stamp = join(ROOT, 'node_modules', '.jivet-stamp')
  const patches = readdirSync(join(ROOT, 'patches'))
  const wanted = stampOf(join(ROOT, 'package-lock.json'), ...patches.map((name) => join(ROOT, 'patches', name)))
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return
  console.log('Installing packages ...')
  // What carries an older form of a patch takes no newer one: it is fetched anew.
  for (const name of patches)
    rmSync(join(ROOT, 'node_modules', ...name.split('+').slice(0, -1)), { recursive: true, force: true })
  execFileSync('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NODE_ENV: 'development' },
  })
  writeFileSync(stamp, wanted)
}

/** All files below folders, sorted, for a stamp of the sources. */
export function filesBelow(...paths) {
  return paths.flatMap((path) =>
    statSync(path).isDirectory()
      ? readdirSync(path)
          .sort()
          .flatMap((name) => filesBelow(join(path, name)))
      : [path],
  )
}

export const sourceStamp = (...paths) => stampOf(...filesBelow(...paths.map((path) => join(ROOT, path))))

const PROGRAM = [
  '.next',
  'public',
  'node_modules',
  'src',
  'db',
  'demo',
  'package.json',
  'tsconfig.json',
  'next.config.ts',
]

const COPIES = '/var/lib/jivet-program'

/**
 * Where the account reads the program from: here, or, where it cannot get here, a copy of it in /var/lib. A copy is
 * made beside its place and renamed: what bears its name is whole.
 */
export function programFolder(account) {
  if (!account || (may(account, '-r', join(ROOT, 'package.json')) && may(account, '-x', join(ROOT, 'node_modules'))))
    return ROOT
  const name = createHash('sha256').update(ROOT).digest('hex').slice(0, 16)
  const parts = PROGRAM.filter((part) => existsSync(join(ROOT, part)))
  // Workers alone need no build.
  const whole = parts.includes('.next') ? '' : '-unbuilt'
  const copy = join(COPIES, `${name}-${buildStamp().slice(0, 16)}${whole}`)
  if (existsSync(copy)) return copy
  const making = `${copy}.making-${process.pid}`
  mkdirSync(making, { recursive: true })
  execFileSync('cp', ['-a', '--reflink=auto', ...parts.map((part) => join(ROOT, part)), making])
  execFileSync('chmod', ['-R', 'a+rX', making])
  // Whatever is kept from others here, these two are not.
  for (const folder of [COPIES, making]) chmodSync(folder, 0o755)
  try {
    renameSync(making, copy)
  } catch {
    // Another start was quicker.
    rmSync(making, { recursive: true, force: true })
  }
  for (const other of readdirSync(COPIES))
    if (other.startsWith(name) && !other.includes('making') && join(COPIES, other) !== copy)
      rmSync(join(COPIES, other), { recursive: true, force: true })
  return copy
}

/**
 * Films the demo with the simulated camera, unless the film of these very sources is there.
 * @returns the footage file.
 */
export function ensureDemoFilm(home, account = null) {
  const stamp = sourceStamp('demo/camera', 'demo/deck-hours.jivet.json', 'src/core/expand', 'src/core/score').slice(
    0,
    16,
  )
  const folder = join(home, 'demo', stamp)
  const film = join(folder, 'deck-hours.mp4')
  if (!existsSync(join(folder, 'deck-hours-gap.truth.json')) || !existsSync(film)) {
    console.log('Filming the demo (simulated, under a minute) ...')
    const program = programFolder(account)
    const args = ['--import', 'tsx', join(program, 'demo', 'camera', 'film.ts'), folder]
    execFileSync(...kept(account, 'KILL', process.execPath, args), {
      cwd: program,
      stdio: ['ignore', 'inherit', 'inherit'],
    })
  }
  return film
}

const buildStamp = () =>
  sourceStamp('src', 'bin', 'package-lock.json', 'next.config.ts', 'postcss.config.mjs', 'tsconfig.json')

const bundle = (from, to, ...options) =>
  execFileSync(join(ROOT, 'node_modules', '.bin', 'esbuild'), [
    ...[join(ROOT, ...from), `--outfile=${join(ROOT, ...to)}`, '--bundle', '--log-level=warning', ...options],
  ])

/** One plain file, for what a browser runs outside of the application's own pages. */
const bundleForBrowser = (from, name) => bundle(from, ['public', name], '--minify', '--format=iife', '--target=es2022')

/** The headless command, as `bin/jivet` starts it while it is up to date. */
const bundleCommand = () =>
  bundle(
    ['bin', 'cli.ts'],
    ['.next', 'cli', 'cli.mjs'],
    '--platform=node',
    '--format=esm',
    '--external:@napi-rs/canvas',
  )

/** Builds the application, unless the build of these very sources is there. */
export function ensureBuild() {
  const stamp = join(ROOT, '.next', 'jivet-stamp')
  const wanted = buildStamp()
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return
  console.log('Building ...')
  bundleForBrowser(['src', 'ui', 'watch', 'limiter.worklet.ts'], 'limiter.js')
  bundleForBrowser(['src', 'companion', 'main.ts'], 'companion.js')
  execFileSync(process.execPath, [join(ROOT, 'node_modules', 'next', 'dist', 'bin', 'next'), 'build'], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1' },
  })
  bundleCommand()
  writeFileSync(stamp, wanted)
}
