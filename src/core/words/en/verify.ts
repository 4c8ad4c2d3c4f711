// What is said of a video that was decoded and checked.
import type { Fault, Verified } from '../../proof/verify'
import { formatInstant, formatLength } from '../../time/clock'
import { SECOND, type Ms } from '../../units'

export function faultText({ kind, atMs, found, expected, what }: Fault): string {
  const at = atMs === null ? '' : `${formatInstant(atMs)}: `
  switch (kind) {
    case 'length':
      return `It is ${formatInstant(found)} long, and should be ${formatInstant(expected)}.`
    case 'count':
      return `${at}the count should become ${what} here, and is ${Math.abs(found)} pictures ${found < 0 ? 'early' : 'late'} or more.`
    case 'picture':
      return `${at}what stands where the count should be ${what} is something else.`
    case 'cue':
      return `${at}"${what}" is ${Math.abs(found)} ms ${found < 0 ? 'early' : 'late'}.`
    case 'unheard':
      return `${at}"${what}" cannot be heard over the footage.`
    case 'apart':
      return `Its sound is ${formatInstant(found)} long, and its picture ${formatInstant(expected)}.`
    case 'loudness':
      return `It is at ${found} LUFS, and should be at ${expected}.`
    case 'black':
      return `${at}the footage is black for ${inSeconds(found)}.`
    case 'frozen':
      return `${at}nothing moves in the footage for ${inSeconds(found)}.`
    case 'peak':
      return `It rises to ${found} dBTP, and should stay below ${expected}.`
  }
}

const inSeconds = (ms: Ms): string => formatLength(Math.round(ms / SECOND) * SECOND)

/** One line for all of it. */
export function verifiedText({ ok, counts, cues, loudness }: Verified): string {
  const seen = counts.worstFrames ? `at most ${counts.worstFrames} pictures off` : 'each on its picture'
  const sounded = cues.worstMs ? `at most ${cues.worstMs} ms off` : 'each on its instant'
  const heard = loudness.lufs === null ? 'silent' : `${loudness.lufs} LUFS, peak ${loudness.peakDb} dBTP`
  return `${ok ? 'Nothing is off' : 'Something is off'}: ${counts.checked} counts, ${seen}; ${cues.checked} cues, ${sounded}; ${heard}.`
}
