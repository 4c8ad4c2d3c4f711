// Frames and timecode, both ways. Where a rate is a thousandth below a whole one, drop-frame timecode leaves numbers
// out so that it keeps up with the clock: two (or four) as each minute begins that is not a tenth (SMPTE ST 12-1).
import type { Ms, Rate } from '../units'

/** How many frames a second the timecode counts. */
export const nominalOf = ({ num, den }: Rate): number => Math.round(num / den)

/** Rates for which numbers are left out. */
export const isDropFrame = (rate: Rate): boolean => rate.den === 1001 && nominalOf(rate) % 30 === 0

/** The frame that an instant lies nearest to. */
export const frameAt = (ms: Ms, { num, den }: Rate): number => Math.round((ms * num) / (den * 1000))
export const msAt = (frame: number, { num, den }: Rate): Ms => (frame * den * 1000) / num

const pad = (value: number): string => String(value).padStart(2, '0')

/** "01:00:05:12", with a semicolon before the frames where numbers are left out. @param frame 0 or more. */
export function timecodeOf(frame: number, rate: Rate): string {
  const nominal = nominalOf(rate)
  const isDrop = isDropFrame(rate)
  const number = isDrop ? frame + leftOutUntil(frame, nominal) : frame
  const seconds = Math.floor(number / nominal)
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60]
  return `${pad(h)}:${pad(m)}:${pad(s)}${isDrop ? ';' : ':'}${pad(number % nominal)}`
}

/** How many numbers were left out before a frame. */
function leftOutUntil(frame: number, nominal: number): number {
  const dropped = nominal / 15
  const aMinute = nominal * 60 - dropped
  const tenMinutes = aMinute * 10 + dropped
  const tens = Math.floor(frame / tenMinutes)
  const within = frame % tenMinutes
  // The first of ten minutes leaves nothing out.
  const minutes = within < nominal * 60 ? 0 : 1 + Math.floor((within - nominal * 60) / aMinute)
  return dropped * (9 * tens + minutes)
}

/** @returns the frame; null where it is no timecode, or one that is left out. */
export function frameOf(timecode: string, rate: Rate): number | null {
  const found = /^(\d{2}):([0-5]\d):([0-5]\d)[:;](\d{2})$/.exec(timecode)
  if (!found) return null
  const [h = 0, m = 0, s = 0, f = 0] = found.slice(1).map(Number)
  const nominal = nominalOf(rate)
  if (f >= nominal) return null
  const minutes = h * 60 + m
  const number = (minutes * 60 + s) * nominal + f
  if (!isDropFrame(rate)) return number
  const dropped = nominal / 15
  if (s === 0 && m % 10 !== 0 && f < dropped) return null
  return number - dropped * (minutes - Math.floor(minutes / 10))
}
