// `npm test`: prepares the machine like `npm start`, then layout, lint, layers, types, unit, integration and browser
// tests. Ends with a line `N passed, N failed`.
import { spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { closeSync, existsSync, mkdirSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { endWithParent } from './folder.mjs'
import { ensureBuild, ensureDemoFilm, ensureModules, ensurePackages, ROOT } from './machine.mjs'

ensurePackages({ forTests: true })
ensureModules()
const tmp = join(ROOT, 'tmp')
mkdirSync(tmp, { recursive: true })
const films = dirname(ensureDemoFilm(tmp))
ensureBuild()

const env = {
  ...process.env,
  JIVET_TEST_FILMS: films,
  NEXT_TELEMETRY_DISABLED: '1',
  // Every Jivet that a test starts ends with us, however we end.
  JIVET_ENDS_WITH: String(process.pid),
}
const running = new Set()
const bin = (name) => join(ROOT, 'node_modules', '.bin', name)

/**
 * @param log where the output goes of what waits for its turn; default: what we write to.
 * @returns whether it ended well.
 */
async function run(title, command, args, { log, part } = {}) {
  const heading = `\n== ${title}\n`
  if (log === undefined) process.stdout.write(heading)
  else writeSync(log, heading)
  const out = log ?? 'inherit'
  const child = spawn(...(log === undefined ? [command, args] : ['nice', [command, ...args]]), {
    cwd: ROOT,
    stdio: ['ignore', out, out],
    env: part ? { ...env, JIVET_TEST_PART: part } : env,
  })
  running.add(child)
  const [code] = await once(child, 'exit')
  running.delete(child)
  return code === 0
}

/** Ends with all that was started here. */
function stop() {
  for (const child of running) killBelow(child.pid)
  process.exit(1)
}

/** Ends a process after all that it has started, which a runner of tests leaves behind when it is ended. */
function killBelow(pid) {
  const children = spawnSync('ps', ['-o', 'pid=', '--ppid', String(pid)], { encoding: 'utf8' }).stdout ?? ''
  for (const child of children.split('\n').map(Number).filter(Boolean)) killBelow(child)
  try {
    process.kill(pid, 'SIGTERM')
  } catch {
    /* gone already */
  }
}
process.on('SIGINT', stop)
process.on('SIGTERM', stop)
process.on('SIGHUP', stop)
endWithParent(stop)

/**
 * @param part of the tests, which keeps its report and what it has heard apart from another's.
 * @returns how many passed and failed; what broke before it could be counted is one that failed.
 */
async function tested(part, args, log) {
  const report = join(tmp, `vitest-${part}.json`)
  rmSync(report, { force: true })
  const isWell = await run(`tests, ${part}`, bin('vitest'), ['run', ...args], { log, part })
  const counts = existsSync(report)
    ? JSON.parse(readFileSync(report, 'utf8'))
    : { numPassedTests: 0, numFailedTests: 0 }
  const broken = !isWell && counts.numFailedTests === 0 ? 1 : 0
  return { passed: counts.numPassedTests, failed: counts.numFailedTests + broken }
}

/** What needs no server, with what servers and browsers leave of the cores; it is told when all is over. */
async function testedBeside() {
  const path = join(tmp, 'beside.log')
  const log = openSync(path, 'w')
  const checks = [
    ['layout', 'prettier', ['--check', '.', '--log-level', 'warn']],
    ['lint', 'eslint', ['.']],
    ['layers', 'depcruise', ['src', 'bin', 'demo']],
    ['types', 'tsc', ['--noEmit']],
  ]
  const ends = []
  for (const [title, command, args] of checks) {
    const isWell = await run(title, bin(command), args, { log })
    ends.push({ passed: Number(isWell), failed: Number(!isWell) })
  }
  if (!asked.length) ends.push(await tested('films', ['--project', 'calm'], log))
  closeSync(log)
  return { ends, said: readFileSync(path, 'utf8') }
}

const asked = process.argv.slice(2)
const [beside, own] = await Promise.all([
  testedBeside(),
  tested('all', asked.length ? asked : ['--project', 'unit', '--project', 'whole']),
])
process.stdout.write(beside.said)
const sum = (key) => [...beside.ends, own].reduce((total, end) => total + end[key], 0)
console.log(`\n${sum('passed')} passed, ${sum('failed')} failed`)
process.exit(sum('failed') ? 1 : 0)
