// Puts the showing of moves where the creator wants it: all at the start, before each block, or inside the rests.
import { FreshKeys, type Score } from '../score/score'
import { boundsOf } from '../score/pace'
import type { Segment } from '../score/segment'

/**
 * @param parts segments by section, unplaced.
 * @returns the same with showings; every move is shown once, before it is first done.
 */
export function withDemos(parts: Segment[][], demos: Score['demos']): Segment[][] {
  switch (demos.place) {
    case 'none':
      return parts
    case 'inRests':
      return noteRests(parts)
    case 'upFront': {
      const first = parts.findIndex(hasWork)
      if (first < 0) return parts
      const shown = showings(parts.flat(), parts[first] ?? [], new Set(), demos.eachMs)
      return parts.map((part, index) => (index === first ? [...shown, ...part] : part))
    }
    case 'beforeBlocks': {
      const seen = new Set<string>()
      return parts.map((part) => (hasWork(part) ? [...showings(part, part, seen, demos.eachMs), ...part] : part))
    }
  }
}

const hasWork = (part: readonly Segment[]): boolean => part.some((segment) => segment.kind === 'work')

/** A showing for every move of `of` not seen yet, told as part of the section of `host`. */
function showings(of: readonly Segment[], host: readonly Segment[], seen: Set<string>, eachMs: number): Segment[] {
  const home = host[0]
  if (!home) return []
  const out: Segment[] = []
  const keys = new FreshKeys()
  for (const name of of.flatMap((segment) => segment.moves)) {
    if (seen.has(name)) continue
    seen.add(name)
    out.push({
      ...home,
      id: `${home.sectionKey}/demo/${keys.take(name)}`,
      kind: 'talk',
      label: `Shown: ${name}`,
      durationMs: eachMs,
      pace: 'open',
      ...boundsOf('open', eachMs),
      estimated: true,
      slot: null,
      side: null,
      firstSide: 'left',
      reverses: false,
      weight: null,
      repIs: '',
      posture: null,
      endPosture: null,
      effort: null,
      reps: null,
      round: null,
      rounds: null,
      set: null,
      sets: null,
      station: null,
      stations: null,
      block: null,
      blocks: null,
      moves: [name],
      note: '',
      origin: null,
    })
  }
  return out
}

function noteRests(parts: Segment[][]): Segment[][] {
  const seen = new Set<string>()
  let before: Segment | undefined
  for (const segment of parts.flat()) {
    const fresh = segment.moves.filter((name) => !seen.has(name))
    for (const name of fresh) seen.add(name)
    if (fresh.length && before && before.kind !== 'work' && before.kind !== 'talk')
      before.note = `Shown now: ${fresh.join(', ')}`
    before = segment
  }
  return parts
}
