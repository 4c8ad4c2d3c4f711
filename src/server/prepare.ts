// Run once before the server starts: brings the database up to date and loads the demo.
//   tsx src/server/prepare.ts PLAN FILM SCORES
import { sql } from './db'
import { loadDemo } from './demo'
import { outdatedFootage } from './footage'
import { addJob } from './jobs'
import { migrate } from './migrate'

const [plan, film, scores] = process.argv.slice(2)
const ran = await migrate()
if (ran.length) console.log(`database: ran ${ran.join(', ')}`)
// Footage that an older Jivet measured is measured anew by the worker.
for (const { id, workoutId } of await outdatedFootage())
  await addJob(sql(), { kind: 'prepare', workoutId, footageId: id })
if (plan && film && scores && (await loadDemo(plan, film, scores))) console.log('demo: loaded')
await sql().end()
