// Writes docs/workout.schema.json from the schema that guards workout files.
import { writeFileSync } from 'node:fs'
import { z } from 'zod'
import { workoutFileSchema } from '../src/core/read/workoutFile'

export const workoutJsonSchema = (): string =>
  `${JSON.stringify(z.toJSONSchema(workoutFileSchema, { io: 'input' }), null, 2)}\n`

if (process.argv[1]?.endsWith('writeSchema.ts')) writeFileSync('docs/workout.schema.json', workoutJsonSchema())
