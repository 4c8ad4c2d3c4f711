// `npm run worker`: workers alone, for another machine. They render parts of videos for the Jivet whose database and
// files they are given: DATABASE_URL, and JIVET_HOME as this machine reaches it, or the bucket that both use; then
// JIVET_HOME is a folder of this machine's own. Ctrl-C ends them; what they had in hand goes back.
import { spawn } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { dataFolder, endWithParent, kept, marked, may, ownAccount, ownFolder } from './folder.mjs'
import { ensureModules, ensurePackages, programFolder, workers } from './machine.mjs'

const home = dataFolder()
const count = workers()
if (!process.env.DATABASE_URL) {
  console.error('Set DATABASE_URL to the database of the Jivet that is to be helped.')
  process.exit(1)
}
const hasBucket = Boolean(process.env.JIVET_S3_BUCKET)
if (!hasBucket && !existsSync(join(home, 'store'))) {
  console.error(`There is no data folder of Jivet at ${home}. Set JIVET_HOME to it, as this machine reaches it.`)
  process.exit(1)
}
ensurePackages({ withDatabase: false })
ensureModules()
const account = ownAccount()
// From here on nothing is written that others may read.
process.umask(0o077)
if (hasBucket) ownFolder(home, account)
else if (account && !may(account, '-w', join(home, 'store'))) {
  console.error(
    `The account jivet, under which workers run when they are started as root, may not write to ${home}. It has to have the same number here as on the machine that the folder is from (id -u jivet).`,
  )
  process.exit(1)
}
const program = programFolder(account)

const children = new Set()
let stopping = false

function begin() {
  const env = marked(home, { ...process.env, HOME: home, JIVET_HOME: home, NODE_ENV: 'production' })
  const command = kept(account, 'TERM', process.execPath, [
    ...['--import', 'tsx', 'src/server/worker.ts'],
    ...(hasBucket ? ['--no-uploads'] : []),
  ])
  const child = spawn(...command, { cwd: program, env, stdio: ['ignore', 'ignore', 'inherit'] })
  children.add(child)
  child.once('exit', () => {
    children.delete(child)
    if (stopping && !children.size) process.exit(0)
    if (!stopping) setTimeout(() => !stopping && begin(), 2000)
  })
}

function stop() {
  stopping = true
  for (const child of children) child.kill('SIGTERM')
  if (!children.size) process.exit(0)
}
process.on('SIGINT', stop)
process.on('SIGTERM', stop)
process.on('SIGHUP', stop)
endWithParent(stop)
for (let number = 0; number < count; number++) begin()
console.log(`${count === 1 ? 'A worker is' : `${count} workers are`} at work for ${home}`)
