// Settings from the environment, through one schema.
import { homedir } from 'node:os'
import { join } from 'node:path'
import { z } from 'zod'

const LOOPBACK = ['127.0.0.1', 'localhost', '::1']

const schema = z.object({
  PORT: z.coerce.number().int().min(1).max(65_535).default(4310),
  HOST: z
    .string()
    .default('127.0.0.1')
    .refine(
      (host) => LOOPBACK.includes(host),
      'Jivet listens on this machine only: HOST is 127.0.0.1, localhost or ::1',
    ),
  JIVET_HOME: z
    .string()
    .default(process.getuid?.() === 0 ? '/var/lib/jivet' : join(homedir(), '.local', 'share', 'jivet')),
  DATABASE_URL: z.string().default(''),
})

export type Settings = z.infer<typeof schema>

/** @throws Error naming the setting and what is wrong with it. */
export function readSettings(env: NodeJS.ProcessEnv = process.env): Settings {
  const read = schema.safeParse(env)
  if (read.success) return read.data
  const issue = read.error.issues[0]
  throw new Error(`The setting ${issue?.path.join('.')} is wrong: ${issue?.message}`)
}
