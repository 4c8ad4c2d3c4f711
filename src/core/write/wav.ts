// Writes 16-bit mono WAV (RIFF) from blocks of samples.
import type { Hertz } from '../units'

/** @param blocks mono samples, -1..1. @returns a whole file. */
export function writeWav(blocks: Iterable<Float32Array>, sampleRate: Hertz): Uint8Array {
  const parts = [...blocks].map((block) =>
    Int16Array.from(block, (value) => Math.round(Math.max(-1, Math.min(1, value)) * 32_767)),
  )
  const dataBytes = parts.reduce((sum, part) => sum + part.byteLength, 0)
  const out = new Uint8Array(44 + dataBytes)
  const view = new DataView(out.buffer)
  const text = (at: number, word: string): void =>
    [...word].forEach((letter, index) => view.setUint8(at + index, letter.charCodeAt(0)))
  text(0, 'RIFF')
  view.setUint32(4, 36 + dataBytes, true)
  text(8, 'WAVEfmt ')
  view.setUint32(16, 16, true)
  view.setUint16(20, 1, true)
  view.setUint16(22, 1, true)
  view.setUint32(24, sampleRate, true)
  view.setUint32(28, sampleRate * 2, true)
  view.setUint16(32, 2, true)
  view.setUint16(34, 16, true)
  text(36, 'data')
  view.setUint32(40, dataBytes, true)
  let at = 44
  for (const part of parts) {
    out.set(new Uint8Array(part.buffer), at)
    at += part.byteLength
  }
  return out
}
