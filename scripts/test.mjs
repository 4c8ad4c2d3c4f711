// `npm test`: prepares the machine like `npm start`, then layout, lint, layers, types, unit, integration and browser
// tests. Ends with a line `N passed, N failed`.
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { ensureBuild, ensureDemoFilm, ensureModules, ensurePackages, ROOT } from './machine.mjs'

ensurePackages({ forTests: true })
ensureModules()
const tmp = join(ROOT, 'tmp')
mkdirSync(tmp, { recursive: true })
const films = dirname(ensureDemoFilm(tmp))
ensureBuild()

const report = join(tmp, 'vitest.json')
rmSync(report, { force: true })
const env = { ...process.env, JIVET_TEST_FILMS: films, NEXT_TELEMETRY_DISABLED: '1' }
const bin = (name) => join(ROOT, 'node_modules', '.bin', name)
const run = (title, command, args) => {
  console.log(`\n== ${title}`)
  return spawnSync(command, args, { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'], env }).status === 0
}

const steps = [
  run('layout', bin('prettier'), ['--check', '.', '--log-level', 'warn']),
  run('lint', bin('eslint'), ['.']),
  run('layers', bin('depcruise'), ['src', 'bin', 'demo']),
  run('types', bin('tsc'), ['--noEmit']),
]
const tested = run('tests', bin('vitest'), ['run', ...process.argv.slice(2)])
const counts = existsSync(report)
  ? JSON.parse(readFileSync(report, 'utf8'))
  : { numPassedTests: 0, numFailedTests: 0, numFailedTestSuites: 1 }
const broken = !tested && counts.numFailedTests === 0 ? 1 : 0
const passed = counts.numPassedTests + steps.filter(Boolean).length
const failed = counts.numFailedTests + steps.filter((ok) => !ok).length + broken
console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed ? 1 : 0)
