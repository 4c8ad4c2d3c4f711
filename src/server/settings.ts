// Settings from the environment, through one schema.
import { homedir } from 'node:os'
import { join } from 'node:path'
import { z } from 'zod'
import { STAND_IN_PORT } from '../core/publish/host'

const LOOPBACK = ['127.0.0.1', 'localhost', '::1']
export const isLoopback = (host: string): boolean => LOOPBACK.includes(host)

/** Shorter ones are guessed. */
const LEAST_PASSPHRASE = 10

const schema = z
  .object({
    PORT: z.coerce.number().int().min(1).max(65_535).default(4310),
    /** The address that is listened at. Any but loopback lets other machines in, by the passphrase. */
    HOST: z.string().default('127.0.0.1'),
    JIVET_PASSPHRASE: z.string().default(''),
    JIVET_HOME: z
      .string()
      .default(process.getuid?.() === 0 ? '/var/lib/jivet' : join(homedir(), '.local', 'share', 'jivet')),
    DATABASE_URL: z.string().default(''),
    /** Where the simulated host answers. */
    JIVET_HOST_URL: z.url().default(`http://127.0.0.1:${STAND_IN_PORT}`),
    /** Rendered chunks that are kept, in gigabytes; the longest unused go first. */
    JIVET_CHUNKS_GB: z.coerce.number().min(0.1).max(100_000).default(10),
    /** A bucket that holds the store, for machines that share no disk; '' for none. */
    JIVET_S3_BUCKET: z.string().default(''),
    /** Where a server of one's own answers by the S3 protocol. */
    JIVET_S3_URL: z.union([z.literal(''), z.url()]).default(''),
    JIVET_S3_REGION: z.string().default('us-east-1'),
    JIVET_S3_KEY: z.string().default(''),
    JIVET_S3_SECRET: z.string().default(''),
    /** With a bucket: how much of it this machine keeps beside it, in gigabytes; the longest unused go first. */
    JIVET_KEPT_GB: z.coerce.number().min(0.1).max(100_000).default(100),
  })
  .refine(
    ({ JIVET_S3_BUCKET, JIVET_S3_KEY, JIVET_S3_SECRET }) => !JIVET_S3_BUCKET || (JIVET_S3_KEY && JIVET_S3_SECRET),
    { path: ['JIVET_S3_KEY'], error: 'with JIVET_S3_BUCKET both it and JIVET_S3_SECRET have to be set' },
  )
  .refine(({ HOST, JIVET_PASSPHRASE }) => isLoopback(HOST) || JIVET_PASSPHRASE.length >= LEAST_PASSPHRASE, {
    path: ['JIVET_PASSPHRASE'],
    error: `with HOST other than 127.0.0.1 it has to be set, to ${LEAST_PASSPHRASE} letters or more`,
  })

export type Settings = z.infer<typeof schema>

/** @throws Error naming the setting and what is wrong with it. */
export function readSettings(env: NodeJS.ProcessEnv = process.env): Settings {
  const read = schema.safeParse(env)
  if (read.success) return read.data
  const issue = read.error.issues[0]
  throw new Error(`The setting ${issue?.path.join('.')} is wrong: ${issue?.message}`)
}
