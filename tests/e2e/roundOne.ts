// A small film of the demo's first round: in the break after it the camera was switched off.
import { execFileSync } from 'node:child_process'
import { FILM } from './jivet'

const FILMED_S = 104

export function filmRoundOne(out: string): void {
  const small = ['-vf', 'scale=640:360', '-c:v', 'libx264', '-preset', 'ultrafast', '-c:a', 'copy']
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', FILM, '-t', String(FILMED_S), ...small, out])
}

/** What was meant to be filmed. */
export const ROUND_ONE_PLAN = [
  'talk Welcome: about 10',
  'circuit Main: 2 rounds, 20 on, 10 off, 15 between, lead 5, last rest dropped',
  '  Jug lift (sides alternate)',
  '  Lock-gate push (sides none)',
  '  Tiller twist (sides halves)',
  '',
].join('\n')
