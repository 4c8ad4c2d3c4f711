// How far below speech and music chirps are heard: one every five seconds, added to a simulated take as it is.
//   tsx bench/chirps.ts
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { feed, levelOf, mix, RATE } from '../demo/takes/sounds'
import { makeTake } from '../demo/takes/takes'
import { ChirpListener, type Chirp } from '../src/core/hear/chirps'
import { CHIRP_VOICES, chirpSound } from '../src/core/sound/chirp'

const EVERY_MS = 5000
const { sound } = makeTake('beeps under speech and music', 'test', 0, join(tmpdir(), 'jivet-spoken'))

function heardIn(samples: Float32Array): Chirp[] {
  const listener = new ChirpListener()
  feed(listener, samples)
  return listener.finish()
}

console.log(`none added: ${heardIn(sound).length} heard in ${Math.round(sound.length / RATE)} s`)
console.log('below   voice   chirps   right   wrong   median, ms   worst, ms')
const count = Math.floor(((sound.length / RATE) * 1000) / EVERY_MS) - 1
const atOf = (code: number): number => (code - 1) * EVERY_MS + 507.25
for (const belowDb of [0, 10, 15, 20, 25, 30])
  for (const voice of CHIRP_VOICES) {
    const samples = Float32Array.from(sound)
    for (let code = 1; code <= count; code++) {
      const chirp = chirpSound(code, voice, RATE)
      mix(samples, chirp, atOf(code), (levelOf(sound) * 10 ** (-belowDb / 20)) / levelOf(chirp))
    }
    const heard = heardIn(samples)
    const off = heard.map(({ code, atMs }) => Math.abs(atMs - atOf(code))).sort((one, other) => one - other)
    const right = off.filter((ms) => ms < 1)
    const told = [right.length, off.length - right.length].map((one) => String(one).padStart(8))
    console.log(
      `${String(belowDb).padStart(2)} dB   ${voice}   ${String(count).padStart(6)}${told.join('')}   ${(right[right.length >> 1] ?? NaN).toFixed(3).padStart(10)}   ${(right.at(-1) ?? NaN).toFixed(3).padStart(9)}`,
    )
  }
