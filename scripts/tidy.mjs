// `npm run tidy`: sweeps what nobody needs any more, now instead of at the next full hour; `npm run tidy -- --dry` only
// tells what would go.
import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { runningDatabase, startDatabase } from './cluster.mjs'
import { dataFolder, holdFolder, kept, marked, ownAccount } from './folder.mjs'
import { programFolder } from './machine.mjs'

const home = dataFolder()
const account = ownAccount()
const undo = []
try {
  if (!existsSync(join(home, 'database-password'))) throw new Error(`There is no data folder of Jivet at ${home}.`)
  const url = process.env.DATABASE_URL || runningDatabase(home, account) || (await ownDatabase())
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

async function ownDatabase() {
  undo.push(await holdFolder(home, account))
  const database = await startDatabase(home, { account })
  undo.push(database.stop)
  return database.url
}
