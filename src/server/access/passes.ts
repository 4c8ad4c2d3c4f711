// Passes: what is proved once by the passphrase, or by a code read off a screen, and then carried in a signed cookie.
import { createHmac, randomBytes, scrypt, timingSafeEqual } from 'node:crypto'
import { readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { z } from 'zod'
import { MINUTE, type Ms } from '../../core/units'
import type { Pass } from './entry'

const derive = promisify<string, Buffer, number, { N: number; r: number; p: number; maxmem: number }, Buffer>(scrypt)
/** About a tenth of a second and 64 MB a try (OWASP's parameters for scrypt: N = 2^16, r = 8, p = 2). */
const COST = { N: 2 ** 16, r: 8, p: 2, maxmem: 256 * 1024 * 1024 }
const KEY_BYTES = 32

const HOUR: Ms = 60 * MINUTE
export const LASTS: Record<Pass['kind'], Ms> = { owner: 30 * 24 * HOUR, device: 12 * HOUR }

export const COOKIE = 'jivet-pass'
/** A `Set-Cookie` header that takes the pass off a browser. */
export const NO_COOKIE = `${COOKIE}=; Path=/; HttpOnly; SameSite=Lax; Max-Age=0`

const cookieSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('owner'), id: z.uuid(), untilMs: z.number() }),
  z.object({ kind: z.literal('device'), id: z.uuid(), workoutId: z.uuid(), untilMs: z.number() }),
])
const SIGNED = /^([\w-]+)\.([\w-]+)$/

export class Passes {
  private trying: Promise<unknown> = Promise.resolve()

  private constructor(
    private readonly salt: Buffer,
    private readonly key: Buffer,
  ) {}

  /** @param folder where the salt is kept, so that a pass outlives the server; another passphrase ends all passes. */
  static async open(passphrase: string, folder: string): Promise<Passes> {
    const salt = await keptSalt(join(folder, 'access.salt'))
    return new Passes(salt, await derive(passphrase, salt, KEY_BYTES, COST))
  }

  /** One try at a time: each takes 64 MB. */
  async knows(passphrase: string): Promise<boolean> {
    const tried = this.trying.then(() => derive(passphrase, this.salt, KEY_BYTES, COST))
    this.trying = tried.catch(() => {})
    return timingSafeEqual(await tried, this.key)
  }

  /** @returns a `Set-Cookie` header. @param nowMs since the epoch. */
  cookieFor(pass: Pass, nowMs: Ms): string {
    const body = Buffer.from(JSON.stringify({ ...pass, untilMs: nowMs + LASTS[pass.kind] })).toString('base64url')
    const seconds = Math.floor(LASTS[pass.kind] / 1000)
    return `${COOKIE}=${body}.${this.sign(body)}; Path=/; HttpOnly; SameSite=Lax; Max-Age=${seconds}`
  }

  /** @param header the `Cookie` header of a request. @returns null where it proves nothing. */
  passIn(header: string | undefined, nowMs: Ms): Pass | null {
    const value = header
      ?.split(/;\s*/)
      .find((one) => one.startsWith(`${COOKIE}=`))
      ?.slice(COOKIE.length + 1)
    const [, body = '', signature = ''] = SIGNED.exec(value ?? '') ?? []
    const [given, wanted] = [Buffer.from(signature), Buffer.from(this.sign(body))]
    if (given.length !== wanted.length || !timingSafeEqual(given, wanted)) return null
    try {
      const read = cookieSchema.safeParse(JSON.parse(Buffer.from(body, 'base64url').toString()))
      return read.success && read.data.untilMs > nowMs ? read.data : null
    } catch {
      return null
    }
  }

  private sign(body: string): string {
    return createHmac('sha256', this.key).update(body).digest('base64url')
  }
}

async function keptSalt(path: string): Promise<Buffer> {
  const fresh = randomBytes(KEY_BYTES)
  try {
    await writeFile(path, fresh, { flag: 'wx', mode: 0o600 })
    return fresh
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error
    return readFile(path)
  }
}
