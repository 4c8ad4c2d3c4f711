// Run once before the server starts: brings the database up to date and loads the demo.
//   tsx src/server/prepare.ts PLAN FILM SCORES
import { Problem } from '../core/problem'
import { sql } from './db'
import { loadDemo } from './demo'
import { outdatedFootage } from './footage'
import { addJob } from './jobs'
import { migrate } from './migrate'
import { knownProblem } from './store'
import { agreeOnStore } from './storeIdentity'

const [plan, film, scores] = process.argv.slice(2)

async function bringUpToDate(): Promise<void> {
  const ran = await migrate()
  if (ran.length) console.log(`database: ran ${ran.join(', ')}`)
  await agreeOnStore().catch((error: unknown) => {
    if (!(error instanceof Problem)) throw error
    console.error(error.message)
  })
  // Footage that an older Jivet measured is measured anew by the worker.
  for (const { id, workoutId } of await outdatedFootage())
    await addJob(sql(), { kind: 'prepare', workoutId, footageId: id })
  if (plan && film && scores && (await loadDemo(plan, film, scores))) console.log('demo: loaded')
}

const MOST_TRIES = 30
for (let attempt = 1; ; attempt++)
  try {
    await bringUpToDate()
    break
  } catch (error) {
    const known = knownProblem(error)
    // It is started again when it dies; every step here can be begun again.
    if (!(known instanceof Problem) || known.code !== 'database-away' || attempt === MOST_TRIES) throw error
    await new Promise((done) => setTimeout(done, 1000))
  }
await sql().end()
