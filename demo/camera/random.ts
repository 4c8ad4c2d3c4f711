// A small seeded generator (mulberry32), so that the same seed films the same session.
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = Math.imul(state ^ (state >>> 15), state | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296
  }
}

/** One of these, each as likely. */
export const pick = <T>(from: readonly T[], random: () => number): T => from[Math.floor(random() * from.length)] as T

/** Three draws round 0, of standard deviation 1, never beyond 3. */
export const bellOf = (random: () => number) => (): number => (random() + random() + random() - 1.5) * 2
