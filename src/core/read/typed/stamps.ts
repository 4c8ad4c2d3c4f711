// Lines that begin with a time, as in a video's list of chapters.
const STAMP = /^\s*(?:[-*•]\s*)?\(?(?:(\d{1,2}):)?(\d{1,3}):([0-5]\d)\)?\s*[-–:|]?\s+(\S.*)$/

/** So many lines have to begin with a time before they are taken for a list of chapters. */
export const FEWEST_STAMPS = 3

export const isStamp = (line: string): boolean => STAMP.test(line)

/** Whether a text holds a list of chapters: times that rise, and not lengths of moves. */
export function holdsStamps(lines: readonly string[]): boolean {
  const times = lines.flatMap((line) => stampOf(line)?.atMs ?? [])
  return times.length >= FEWEST_STAMPS && times.every((atMs, at) => at === 0 || atMs >= (times[at - 1] ?? 0) + 1)
}

/** The time a line begins with, in milliseconds, and what follows it. */
export function stampOf(line: string): { atMs: number; text: string } | null {
  const found = STAMP.exec(line)
  if (!found) return null
  const atMs = ((Number(found[1] ?? 0) * 60 + Number(found[2])) * 60 + Number(found[3])) * 1000
  return { atMs, text: (found[4] ?? '').trim() }
}
