// `npm start`: installs what is missing, starts the database, brings it up to date, loads the demo, builds, serves.
// Ctrl-C stops everything that was started here.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { createServer } from 'node:net'
import { homedir } from 'node:os'
import { join, resolve } from 'node:path'
import {
  ensureBuild,
  ensureDemoFilm,
  ensureModules,
  ensurePackages,
  holdFolder,
  isRoot,
  noteChild,
  ROOT,
  startDatabase,
} from './machine.mjs'

const PORT = process.env.PORT ?? '4310'
const HOST = process.env.HOST ?? '127.0.0.1'
const HOME = resolve(
  process.env.JIVET_HOME ?? (isRoot ? '/var/lib/jivet' : join(homedir(), '.local', 'share', 'jivet')),
)

const undo = []
const children = new Set()
let stopping = false

async function main() {
  if (!['127.0.0.1', 'localhost', '::1'].includes(HOST))
    throw new Error('Jivet listens on this machine only: HOST is 127.0.0.1, localhost or ::1.')
  if (!/^\d+$/.test(PORT) || Number(PORT) < 1 || Number(PORT) > 65535)
    throw new Error(`PORT is a number from 1 to 65535, not "${PORT}".`)
  undo.push(holdFolder(HOME))
  await portIsFree()
  ensurePackages()
  ensureModules()
  const film = ensureDemoFilm(HOME)
  ensureBuild()
  let url = process.env.DATABASE_URL
  if (!url) {
    const database = await startDatabase(HOME)
    undo.push(database.stop)
    url = database.url
  }
  const env = {
    ...process.env,
    PORT,
    HOST,
    JIVET_HOME: HOME,
    DATABASE_URL: url,
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
  }
  await finished(
    node(['--import', 'tsx', 'src/server/prepare.ts', 'demo/deck-hours.jivet.json', film, 'demo/scores'], env),
  )
  keepRunning('worker', () => node(['--import', 'tsx', 'src/server/worker.ts'], env, ['ignore', 'ignore', 'inherit']))
  keepRunning('server', () =>
    node(['node_modules/next/dist/bin/next', 'start', '-H', HOST, '-p', PORT], env, ['ignore', 'ignore', 'inherit']),
  )
  await answering(`http://${HOST === '::1' ? '[::1]' : HOST}:${PORT}/api/health`)
  console.log(`Jivet is ready at http://${HOST === '::1' ? '[::1]' : HOST}:${PORT}`)
}

async function portIsFree() {
  const probe = createServer()
  probe.listen(Number(PORT), HOST)
  try {
    await once(probe, 'listening')
  } catch {
    throw new Error(`Port ${PORT} is taken. Set PORT to another number, for example PORT=4311 npm start.`)
  }
  probe.close()
  await once(probe, 'close')
}

function node(args, env, stdio = ['ignore', 'inherit', 'inherit']) {
  const child = spawn(process.execPath, args, { cwd: ROOT, env, stdio })
  children.add(child)
  noteChild(HOME, child.pid)
  child.once('exit', () => children.delete(child))
  return child
}

async function finished(child) {
  const [code] = await once(child, 'exit')
  if (code !== 0) throw new Error('A step of the start failed; the lines above say which.')
}

/** Starts a process again when it dies, unless we are stopping; more than five deaths in a minute end everything. */
function keepRunning(name, start) {
  const deaths = []
  const run = () =>
    start().once('exit', (code, signal) => {
      if (stopping) return
      deaths.push(Date.now())
      console.error(`The ${name} ended (${signal ?? code}); starting it again.`)
      if (deaths.filter((at) => at > Date.now() - 60_000).length > 5) return void stop(1)
      setTimeout(() => {
        if (!stopping) run()
      }, 500)
    })
  run()
}

async function answering(address) {
  for (let attempt = 0; attempt < 300; attempt++) {
    const answer = await fetch(address).catch(() => null)
    if (answer?.ok) return
    await new Promise((done) => setTimeout(done, 200))
  }
  throw new Error('The server did not answer within a minute.')
}

async function stop(code) {
  if (stopping) return
  stopping = true
  const ends = [...children].map((child) => once(child, 'exit'))
  for (const child of children) child.kill('SIGTERM')
  const patience = setTimeout(() => {
    for (const child of children) child.kill('SIGKILL')
  }, 5000)
  await Promise.all(ends)
  clearTimeout(patience)
  for (const step of undo.reverse()) {
    try {
      step()
    } catch (error) {
      console.error(error.message)
    }
  }
  process.exit(code)
}

process.on('SIGINT', () => void stop(0))
process.on('SIGTERM', () => void stop(0))
process.on('SIGHUP', () => void stop(0))
main().catch((error) => {
  console.error(error.message)
  void stop(1)
})
