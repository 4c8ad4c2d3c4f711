// Decodes a recording's sound once and hands the same samples to whoever listens.
import type { Evidence } from '../core/evidence'
import { Hearing, type HearingOptions } from '../core/hear/hearing'
import { BandGatherer } from '../core/hear/likes'
import { MonoMixer } from '../core/hear/mono'
import { PeakGatherer, type PeakLevel } from '../core/hear/peaks'
import { HEARING_RATE } from '../core/hear/tones'
import { Problem } from '../core/problem'
import type { Ms, Share } from '../core/units'
import { callModel } from './models'
import type { FootageFacts } from './probe'
import { footageInput, patience } from './input'
import { sampleReader } from './samples'
import { COPY_TIMES, soundOnTime } from './timebase'
import { runTool } from './tool'

export interface Heard {
  /** In order of time. */
  evidence: Evidence[]
  peaks: PeakLevel[]
  soundMs: Ms
  /** Why some kind of evidence was not listened for. */
  deaf: Problem | null
}

export interface ListenOptions extends Pick<HearingOptions, 'known' | 'onPiece'> {
  signal?: AbortSignal
  /** Called with the share done, 0 to 1. */
  onProgress?: (share: Share) => void
}

/** @throws Problem `tool-failed`, `tool-missing` or `cancelled`. */
export async function listenTo(
  path: string,
  facts: SoundFacts,
  { signal, onProgress, ...options }: ListenOptions = {},
): Promise<Heard> {
  const { model, deaf } = await callModel().then(
    (model) => ({ model, deaf: null }),
    (error: unknown) => {
      if (error instanceof Problem) return { model: null, deaf: error }
      throw error
    },
  )
  // Pieces are whole, or they are not kept.
  const hearing = new Hearing({ model, ...(deaf ? {} : options) })
  const peaks = new PeakGatherer()
  let samples = 0
  await decodeSound(path, facts, signal, (block) => {
    hearing.push(block)
    peaks.push(block)
    samples += block.length
    onProgress?.(Math.min(1, ((samples / HEARING_RATE) * 1000) / Math.max(1, facts.durationMs)))
  })
  return {
    evidence: hearing.finish(),
    peaks: peaks.finish(),
    soundMs: Math.round((samples / HEARING_RATE) * 1000),
    deaf,
  }
}

/**
 * The bands of a recording's sound, as likes of a tap are looked for in them.
 * @throws Problem `tool-failed`, `tool-missing` or `cancelled`.
 */
export async function bandsOf(path: string, facts: SoundFacts, signal?: AbortSignal): Promise<Float32Array> {
  const bands = new BandGatherer()
  await decodeSound(path, facts, signal, (block) => bands.push(block))
  return bands.finish()
}

type SoundFacts = Pick<FootageFacts, 'durationMs' | 'zeroS'> & Partial<Pick<FootageFacts, 'audioChannels'>>

/** How much sound is heard after the last picture. */
const BEYOND_S = 60

/** Mono float samples at `HEARING_RATE` from instant 0 of the footage on, gaps filled with silence. */
async function decodeSound(
  path: string,
  facts: SoundFacts,
  signal: AbortSignal | undefined,
  onBlock: (block: Float32Array) => void,
): Promise<void> {
  const stereo = facts.audioChannels === 2
  const samplesIn = sampleReader(1)
  const mixer = new MonoMixer(onBlock)
  await runTool(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', ...COPY_TIMES, ...footageInput(path), '-map', '0:a:0', '-vn', '-sn', '-dn'],
      // What leaps beyond the picture's end is not waited for.
      ...['-af', `${soundOnTime(facts)},atrim=end=${facts.durationMs / 1000 + BEYOND_S}`],
      ...['-ac', stereo ? '2' : '1', '-ar', String(HEARING_RATE), '-f', 'f32le', 'pipe:1'],
    ],
    {
      signal,
      limitMs: patience(facts.durationMs, 2),
      onOutput: (chunk) => {
        const samples = samplesIn(chunk)
        if (stereo) mixer.push(samples)
        else onBlock(samples)
      },
    },
  )
  mixer.finish()
}
