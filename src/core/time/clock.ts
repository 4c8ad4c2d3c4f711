// Reading and writing lengths of time the way a coach types them: `45`, `1:15`, `1:02:03`, `1m 15s`.
import { DAY, type Ms } from '../units'

const UNITS =
  /^(?:(\d+)\s*h(?:ours?)?)?\s*(?:(\d+)\s*m(?:in(?:utes?)?)?)?\s*(?:(\d+(?:\.\d+)?)\s*s(?:ec(?:onds?)?)?)?$/i
const CLOCK = /^(?:(\d+):)?(\d{1,3}):([0-5]?\d(?:[.,]\d+)?)$/
const PLAIN = /^\d+(?:[.,]\d+)?$/

/**
 * Reads a typed length. Plain numbers are seconds.
 * @returns whole milliseconds, or null when the text is no length between 0 and 24 hours.
 */
export function parseLength(text: string): Ms | null {
  const seconds = secondsIn(text.trim())
  if (seconds === null) return null
  const ms = Math.round(seconds * 1000)
  return Number.isFinite(ms) && ms >= 0 && ms <= DAY ? ms : null
}

/** The same where minutes are meant: plain numbers are minutes, as in "a 20 minute session". */
export function parseMinutes(text: string): Ms | null {
  return PLAIN.test(text.trim()) ? parseLength(String(decimal(text.trim()) * 60)) : parseLength(text)
}

function secondsIn(text: string): number | null {
  if (PLAIN.test(text)) return decimal(text)
  const clock = CLOCK.exec(text)
  if (clock) return Number(clock[1] ?? 0) * 3600 + Number(clock[2]) * 60 + decimal(clock[3] ?? '0')
  const units = UNITS.exec(text)
  if (!text || !units) return null
  return Number(units[1] ?? 0) * 3600 + Number(units[2] ?? 0) * 60 + Number(units[3] ?? 0)
}

const decimal = (text: string): number => Number(text.replace(',', '.'))

/** Writes a length as `0:45`, `12:05` or `1:02:03`; fractions of a second are kept only when there are any. */
export function formatLength(ms: Ms): string {
  const sign = ms < 0 ? '-' : ''
  const whole = Math.abs(Math.round(ms))
  const fraction = whole % 1000
  const tail = fraction ? `.${String(fraction).padStart(3, '0').replace(/0+$/, '')}` : ''
  return sign + clockOf(Math.floor(whole / 1000)) + tail
}

/** Writes an instant to the nearest second, for totals and chapter lines. */
export function formatClock(ms: Ms): string {
  return clockOf(Math.max(0, Math.round(ms / 1000)))
}

function clockOf(totalSeconds: number): string {
  const hours = Math.floor(totalSeconds / 3600)
  const minutes = Math.floor((totalSeconds % 3600) / 60)
  const seconds = String(totalSeconds % 60).padStart(2, '0')
  return hours ? `${hours}:${String(minutes).padStart(2, '0')}:${seconds}` : `${minutes}:${seconds}`
}

/** Writes an instant to the millisecond, `1:02:03.456` or `2:03.456`, where a hand is placing something exactly. */
export function formatInstant(ms: Ms): string {
  const whole = Math.max(0, Math.round(ms))
  return `${clockOf(Math.floor(whole / 1000))}.${String(whole % 1000).padStart(3, '0')}`
}
