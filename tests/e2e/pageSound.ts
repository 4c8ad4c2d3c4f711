// What a page sounds, sample by sample: whatever goes to the loudspeakers is written down on its way.
import type { Page } from 'playwright-core'

/** Before the page is loaded. */
export async function writeDownSound(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const written = { rate: 0, blocks: [] as Float32Array[], worklets: [] as string[] }
    window.AudioWorkletNode = class extends AudioWorkletNode {
      constructor(context: BaseAudioContext, name: string, options?: AudioWorkletNodeOptions) {
        super(context, name, options)
        written.worklets.push(name)
      }
    }
    Object.assign(window, { jivetSound: written })
    const connect = AudioNode.prototype.connect as (this: AudioNode, to: AudioNode) => AudioNode
    const writers = new WeakMap<BaseAudioContext, ScriptProcessorNode>()
    AudioNode.prototype.connect = function (this: AudioNode, to: AudioNode) {
      if (!(to instanceof AudioDestinationNode)) return connect.call(this, to)
      const { context } = this
      let writer = writers.get(context)
      if (!writer) {
        writer = context.createScriptProcessor(4096, 2, 2)
        writer.onaudioprocess = ({ inputBuffer }) => {
          written.rate = inputBuffer.sampleRate
          written.blocks.push(inputBuffer.getChannelData(0).slice())
        }
        writers.set(context, writer)
        connect.call(writer, to)
      }
      connect.call(this, writer)
      return connect.call(this, to)
    } as typeof AudioNode.prototype.connect
  })
}

/** What was put on the audio thread so far. */
export const workletsOf = (page: Page): Promise<string[]> =>
  page.evaluate(() => (window as unknown as { jivetSound: { worklets: string[] } }).jivetSound.worklets)

/** Forgets what was sounded so far. */
export const forgetSound = (page: Page): Promise<void> =>
  page.evaluate(() => {
    ;(window as unknown as { jivetSound: { blocks: Float32Array[] } }).jivetSound.blocks.length = 0
  })

/** The left channel of all that was sounded. */
export async function soundOfPage(page: Page): Promise<{ rate: number; samples: Float32Array }> {
  const { rate, text } = await page.evaluate(() => {
    const { rate, blocks } = (window as unknown as { jivetSound: { rate: number; blocks: Float32Array[] } }).jivetSound
    const bytes = new Uint8Array(blocks.reduce((sum, { byteLength }) => sum + byteLength, 0))
    let at = 0
    for (const block of blocks) {
      bytes.set(new Uint8Array(block.buffer), at)
      at += block.byteLength
    }
    let text = ''
    for (let from = 0; from < bytes.length; from += 8192)
      text += String.fromCharCode(...bytes.subarray(from, from + 8192))
    return { rate, text: btoa(text) }
  })
  return { rate, samples: new Float32Array(new Uint8Array(Buffer.from(text, 'base64')).buffer) }
}

const ENVELOPE_MS = 10

/** The level of each 10 ms, in dB. */
function envelopeOf(samples: Float32Array, rate: number): number[] {
  const length = Math.round((rate * ENVELOPE_MS) / 1000)
  return Array.from({ length: Math.floor(samples.length / length) }, (_, step) => {
    const part = samples.subarray(step * length, (step + 1) * length)
    return 10 * Math.log10(part.reduce((sum, one) => sum + one ** 2, 0) / length + 1e-9)
  })
}

/** Laid by itself: a browser without loudspeakers has a clock of its own, which drifts from that of the picture. */
const WINDOW_S = 3
const SECOND = 1000 / ENVELOPE_MS

/**
 * Lays what was sounded on what was rendered, window by window, and holds the levels of each second against each other.
 * @returns the differences of levels in dB, of each second that is not silent; that of the whole; and how alike the
 *   least alike of the windows run.
 */
export function levelsBeside(
  sounded: { rate: number; samples: Float32Array },
  rendered: { rate: number; samples: Float32Array },
): { seconds: number[]; whole: number; alike: number } {
  const ours = envelopeOf(sounded.samples, sounded.rate),
    theirs = envelopeOf(rendered.samples, rendered.rate)
  const seconds: number[] = []
  const both = { ours: [] as number[], theirs: [] as number[] }
  let least = 1
  for (let from = 0; from + WINDOW_S * SECOND <= ours.length; from += WINDOW_S * SECOND) {
    const part = ours.slice(from, from + WINDOW_S * SECOND)
    const { at, alike } = placeOf(part, theirs)
    least = Math.min(least, alike)
    const other = theirs.slice(at, at + part.length)
    both.ours.push(...part)
    both.theirs.push(...other)
    for (let second = 0; second < part.length; second += SECOND) {
      const [one, two] = [part, other].map((levels) => powerOf(levels.slice(second, second + SECOND)))
      if (two! > -50) seconds.push(one! - two!)
    }
  }
  return { seconds, whole: powerOf(both.ours) - powerOf(both.theirs), alike: least }
}

function placeOf(part: number[], levels: number[]): { at: number; alike: number } {
  let best = { at: 0, alike: -1 }
  for (let at = 0; at + part.length <= levels.length; at++) {
    const alike = correlation(part, levels.slice(at, at + part.length))
    if (alike > best.alike) best = { at, alike }
  }
  return best
}

const powerOf = (levels: number[]): number =>
  10 * Math.log10(levels.reduce((sum, level) => sum + 10 ** (level / 10), 0) / levels.length)

function correlation(one: number[], other: number[]): number {
  const mean = (all: number[]): number => all.reduce((sum, value) => sum + value, 0) / all.length
  const [a, b] = [mean(one), mean(other)]
  let both = 0,
    first = 0,
    second = 0
  one.forEach((value, at) => {
    both += (value - a) * (other[at]! - b)
    first += (value - a) ** 2
    second += (other[at]! - b) ** 2
  })
  return both / Math.sqrt(first * second || 1)
}
