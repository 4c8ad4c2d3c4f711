// Lines spoken by free synthesisers: flite, espeak-ng in its many voices, festival. What is said is simulated, and the
// file of a line is kept, as one line is said in many takes.
import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, renameSync } from 'node:fs'
import { join } from 'node:path'
import { readWave } from '../camera/wave'
import { levelOf, RATE } from './sounds'

/** `flite:kal`, `festival:ked_diphone`, or `espeak:en-gb+m3:150:45` with words a minute and pitch, 0 to 99. */
export type Voice = `${'flite' | 'festival' | 'espeak'}:${string}`

/** Root of the mean square of every line. */
export const VOICE_LEVEL = 0.1
/** A line begins where it is this loud. */
const AUDIBLE = 0.02

const SYNTHESISERS: Record<string, (text: string, voice: string, out: string) => [program: string, options: string[]]> =
  {
    flite: (text, voice, out) => ['flite', ['-voice', voice, '-t', text, '-o', out]],
    espeak: (text, voice, out) => {
      const [name = '', rate = '150', pitch = '50'] = voice.split(':')
      return ['espeak-ng', ['-v', name, '-s', rate, '-p', pitch, '-w', out, text]]
    },
    festival: (text, voice, out) => [
      'festival',
      ['-b', `(voice_${voice})`, `(utt.save.wave (utt.synth (Utterance Text "${text}")) "${out}" 'riff)`],
    ],
  }

/** @returns samples from the first sound of the line on. @param folder where spoken lines are kept. */
export function speak(text: string, voice: Voice, folder: string): Float32Array {
  mkdirSync(folder, { recursive: true })
  const file = join(folder, `${createHash('sha256').update(`${voice} ${text}`).digest('hex').slice(0, 20)}.wav`)
  const [engine = '', ...rest] = voice.split(':')
  if (!existsSync(file)) {
    const part = `${file}.${process.pid}.part`
    const [program, options] = SYNTHESISERS[engine]?.(text, rest.join(':'), part) ?? ['', []]
    execFileSync(program, options, { stdio: 'ignore' })
    renameSync(part, file)
  }
  const spoken = readWave(file, RATE)
  const from = Math.max(0, spoken.findIndex((sample) => Math.abs(sample) > AUDIBLE) - RATE / 100)
  const level = levelOf(spoken)
  return spoken.subarray(from).map((sample) => (sample * VOICE_LEVEL) / level)
}
