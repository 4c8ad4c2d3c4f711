// Codes by which a device is paired to one workout's floor: shown on a screen that has a pass, read once, soon.
import { createHash, randomBytes } from 'node:crypto'
import { MINUTE, type Ms } from '../../core/units'

const LASTS_MS: Ms = 10 * MINUTE

const hashOf = (code: string): string => createHash('sha256').update(code).digest('hex')

export class Pairing {
  private readonly open = new Map<string, { workoutId: string; untilMs: Ms }>()

  /** @param nowMs on a clock that never goes back. */
  begin(workoutId: string, nowMs: Ms): string {
    for (const [hash, { untilMs }] of this.open) if (untilMs <= nowMs) this.open.delete(hash)
    const code = randomBytes(18).toString('base64url')
    this.open.set(hashOf(code), { workoutId, untilMs: nowMs + LASTS_MS })
    return code
  }

  /** @returns the workout that the code is for; null where it was used, is too old, or was never given out. */
  workoutOf(code: string, nowMs: Ms): string | null {
    const found = this.open.get(hashOf(code))
    return found && found.untilMs > nowMs ? found.workoutId : null
  }

  /** Uses the code up. @returns as `workoutOf`. */
  end(code: string, nowMs: Ms): string | null {
    const workoutId = this.workoutOf(code, nowMs)
    this.open.delete(hashOf(code))
    return workoutId
  }
}
