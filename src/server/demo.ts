// Loads the demo on first start: the sample workout with its simulated footage, once.
import { copyFile, mkdir, readdir, readFile, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { readWorkoutFile } from '../core/read/workoutFile'
import { readShorthand } from '../core/shorthand/read'
import { sql } from './db'
import { addFootage } from './footage'
import { uploadsFolder } from './store'
import { createWorkout } from './workouts'

/**
 * @param film the demo's footage file.
 * @param scores a folder of typed scores that come without footage.
 * @returns whether the demo was loaded now.
 */
export async function loadDemo(planFile: string, film: string, scores: string): Promise<boolean> {
  const [there] = await sql()`select 1 from workouts where is_demo limit 1`
  if (there) return false
  await mkdir(uploadsFolder(), { recursive: true })
  await copyFile(film, join(uploadsFolder(), 'demo-film'))
  for (const name of (await readdir(scores)).sort().reverse())
    await createWorkout(readShorthand(await readFile(join(scores, name), 'utf8')).score, true)
  const workoutId = await createWorkout(readWorkoutFile(await readFile(planFile, 'utf8')), true)
  await addFootage({ workoutId, name: 'deck-hours.mp4', bytes: (await stat(film)).size, upload: 'demo-film' })
  return true
}
