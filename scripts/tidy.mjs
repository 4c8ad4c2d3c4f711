// `npm run tidy`: sweeps what nobody needs any more, now instead of at the next full hour; `npm run tidy -- --dry` only
// tells what would go.
import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { dataFolder, holdFolder, kept, marked, ownAccount, programFolder, startDatabase } from './machine.mjs'

const home = dataFolder()
const account = ownAccount()
const undo = []
try {
  if (!existsSync(join(home, 'database-password'))) throw new Error(`There is no data folder of Jivet at ${home}.`)
  const url = runningDatabase() ?? (await ownDatabase())
  const command = kept(account, 'TERM', process.execPath, [
    '--import',
    'tsx',
    'src/server/tidyNow.ts',
    ...process.argv.slice(2),
  ])
  const env = marked(home, { ...process.env, JIVET_HOME: home, DATABASE_URL: url })
  process.exitCode = spawnSync(...command, {
    cwd: programFolder(account),
    env,
    stdio: ['ignore', 'inherit', 'inherit'],
  }).status
} catch (error) {
  console.error(error.message)
  process.exitCode = 1
} finally {
  for (const step of undo.reverse()) await step()
}

/** The database of a Jivet that runs on this folder. */
function runningDatabase() {
  if (process.env.DATABASE_URL) return process.env.DATABASE_URL
  const note = join(home, 'database', 'postmaster.pid')
  if (!existsSync(join(home, 'running')) || !existsSync(note)) return null
  const port = readFileSync(note, 'utf8').split('\n')[3]
  return `postgres://jivet:${readFileSync(join(home, 'database-password'), 'utf8')}@127.0.0.1:${port}/postgres`
}

async function ownDatabase() {
  undo.push(await holdFolder(home, account))
  const database = await startDatabase(home, { account })
  undo.push(database.stop)
  return database.url
}
