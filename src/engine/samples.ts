// Samples as they come out of a pipe of raw floats: a chunk may end in the middle of one.

/** @returns what makes the whole samples of a chunk, those of all channels together; the rest waits for the next. */
export function sampleReader(channels: number): (chunk: Buffer) => Float32Array {
  let rest: Buffer = Buffer.alloc(0)
  return (chunk) => {
    const bytes = rest.length ? Buffer.concat([rest, chunk]) : chunk
    const whole = bytes.length - (bytes.length % (4 * channels))
    rest = bytes.subarray(whole)
    return new Float32Array(new Uint8Array(bytes.subarray(0, whole)).buffer)
  }
}
