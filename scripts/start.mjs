// `npm start`: installs what is missing, starts the database, brings it up to date, loads the demo, builds, serves.
// Ctrl-C stops everything that was started here.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { createServer } from 'node:net'
import { startDatabase } from './cluster.mjs'
import { dataFolder, endWithParent, holdFolder, kept, marked, ownAccount, waitWhileBusy } from './folder.mjs'
import { ensureBuild, ensureDemoFilm, ensureModules, ensurePackages, programFolder, workers } from './machine.mjs'

const PORT = process.env.PORT ?? '4310'
const HOST = process.env.HOST ?? '127.0.0.1'
/** Where this machine finds it; `0.0.0.0` and `::` are all of its addresses. */
const NAME = HOST === '0.0.0.0' ? '127.0.0.1' : HOST === '::' ? '::1' : HOST
const ADDRESS = `http://${NAME.includes(':') ? `[${NAME}]` : NAME}:${PORT}`
const HOME = dataFolder()
const WORKERS = workers()

const undo = []
const children = new Set()
let stopping = false

async function main() {
  if (!['127.0.0.1', 'localhost', '::1'].includes(HOST) && (process.env.JIVET_PASSPHRASE ?? '').length < 10)
    throw new Error(
      'With HOST other than 127.0.0.1 other machines reach Jivet. Set JIVET_PASSPHRASE to 10 letters or more; whoever comes from there is asked for it.',
    )
  if (!/^\d+$/.test(PORT) || Number(PORT) < 1 || Number(PORT) > 65535)
    throw new Error(`PORT is a number from 1 to 65535, not "${PORT}".`)
  const account = ownAccount()
  undo.push(await holdFolder(HOME, account))
  await portIsFree()
  ensurePackages({ withDatabase: !process.env.DATABASE_URL })
  ensureModules()
  ensureBuild()
  // From here on nothing is written that others may read.
  process.umask(0o077)
  const film = ensureDemoFilm(HOME, account)
  let url = process.env.DATABASE_URL
  if (!url) {
    const database = await startDatabase(HOME, { account, onDeath: mayStartAgain('database'), keepsCopy: true })
    undo.push(database.stop)
    url = database.url
  }
  const run = { account, program: programFolder(account), env: environment(url) }
  await finished(start(run, ['src/server/prepare.ts', 'demo/deck-hours.jivet.json', film, 'demo/scores']))
  for (let number = 0; number < WORKERS; number++)
    keepRunning('worker', () => start(run, ['src/server/worker.ts'], ['ignore', 'ignore', 'inherit']))
  keepRunning('server', () => start(run, ['src/server/serve.ts'], ['ignore', 'ignore', 'inherit']))
  await answering(`${ADDRESS}/api/health`)
  console.log(`Jivet is ready at ${ADDRESS}`)
}

const environment = (url) =>
  marked(HOME, {
    ...process.env,
    // Nothing looks for settings of its own in the home of whoever started us.
    HOME,
    PORT,
    HOST,
    JIVET_HOME: HOME,
    DATABASE_URL: url,
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
  })

async function portIsFree() {
  for (let attempt = 0; ; attempt++) {
    const probe = createServer()
    probe.listen(Number(PORT), HOST)
    const listening = await once(probe, 'listening').then(
      () => true,
      () => false,
    )
    if (listening) {
      probe.close()
      return void (await once(probe, 'close'))
    }
    // What was ended just now may hold it a moment longer.
    if (attempt > 10)
      throw new Error(`Port ${PORT} is taken. Set PORT to another number, for example PORT=4311 npm start.`)
    await new Promise((done) => setTimeout(done, 200))
  }
}

/** Starts a program of ours as the account that may touch the data, and nothing else. */
function start({ account, program, env }, args, stdio = ['ignore', 'inherit', 'inherit']) {
  const command = kept(account, 'TERM', process.execPath, ['--import', 'tsx', ...args])
  const child = spawn(...command, { cwd: program, env, stdio })
  children.add(child)
  child.once('exit', () => children.delete(child))
  return child
}

async function finished(child) {
  const [code] = await once(child, 'exit')
  if (code !== 0) throw new Error('A step of the start failed; the lines above say which.')
}

/** @returns a function to be told of each death: false, and the end of everything, after more than ten in a minute. */
function mayStartAgain(name) {
  const deaths = []
  return () => {
    if (stopping) return false
    deaths.push(Date.now())
    console.error(`The ${name} ended; starting it again.`)
    if (deaths.filter((at) => at > Date.now() - 60_000).length <= MOST_DEATHS) return true
    void stop(1)
    return false
  }
}
const MOST_DEATHS = Number(process.env.JIVET_MOST_DEATHS ?? 10)

function keepRunning(name, begin) {
  const again = mayStartAgain(name)
  const run = () => begin().once('exit', () => again() && setTimeout(() => !stopping && run(), 500))
  run()
}

const answering = (address) =>
  waitWhileBusy(HOME, 'The server', async () => (await fetch(address).catch(() => null))?.ok ?? false)

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
      await step()
    } catch (error) {
      console.error(error.message)
    }
  }
  process.exit(code)
}

process.on('SIGINT', () => void stop(0))
process.on('SIGTERM', () => void stop(0))
process.on('SIGHUP', () => void stop(0))
endWithParent(() => void stop(0))
main().catch((error) => {
  console.error(error.message)
  void stop(1)
})
