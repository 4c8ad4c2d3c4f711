// Step 004: stations and rows of every score get keys of their own, ties follow their segments to the ids made of them,
// and the shelf's facts are written down. It speaks of the ids that Jivet made before, so it names formats; it is never
// changed.
import type { TransactionSql } from 'postgres'
import type { FormatName, Section } from '../../core/score/formats'
import { scoreSchema, type Score } from '../../core/score/score'
import { factsOfStored, writeFacts } from '../shelfFacts'
import { segmentsOfBefore } from './lastRest'

export async function keyStations(tx: TransactionSql): Promise<void> {
  const ids = await tx<{ id: string }[]>`select id from workouts order by id`
  for (const { id } of ids) {
    const [row] = await tx<{ score: unknown }[]>`select score from workouts where id = ${id}`
    const read = scoreSchema.safeParse(row?.score)
    if (read.success) {
      await tx`update workouts set score = ${tx.json(read.data as never)} where id = ${id}`
      await moveTies(tx, id, read.data)
    }
    await writeFacts(tx, id, factsOfStored(row?.score))
  }
}

async function moveTies(tx: TransactionSql, workoutId: string, score: Score): Promise<void> {
  const was = legacyIds(score)
  if (!was.size) return
  const rows = await tx<{ segment_id: string }[]>`delete from stitches where workout_id = ${workoutId} returning *`
  for (const row of rows)
    await tx`insert into stitches ${tx({ ...row, segment_id: was.get(row.segment_id) ?? row.segment_id })}`
}

/** From the ids that segments had to those that they have now; only those that differ. */
export function legacyIds(score: Score): Map<string, string> {
  const ids = new Map<string, string>()
  const sections = new Map(score.sections.map((section) => [section.key, section]))
  const demos = new Map<string, number>()
  for (const { id, sectionKey } of segmentsOfBefore(score)) {
    const section = sections.get(sectionKey)
    const tail = id.slice(sectionKey.length + 1)
    if (!section) continue
    const before = tail.startsWith('demo/') ? `demo/${next(demos, sectionKey)}` : legacyTail(section, tail)
    if (before !== tail) ids.set(`${sectionKey}/${before}`, id)
  }
  return ids
}

function next(counts: Map<string, number>, key: string): number {
  const count = (counts.get(key) ?? 0) + 1
  counts.set(key, count)
  return count
}

type Grouped = 'pairs' | 'ladder' | 'uneven' | 'compound' | 'burst' | 'buyIn' | 'couplet' | 'pyramid'
const GROUPED: readonly FormatName[] = ['pairs', 'ladder', 'uneven', 'compound', 'burst', 'buyIn', 'couplet', 'pyramid']

/** The end of an id as it was when groups and places in them were counted: `g2/r1/s1/work`. */
function legacyTail(section: Section, tail: string): string {
  if (!('groups' in section) || !GROUPED.includes(section.format)) return tail
  const parts = tail.split('/')
  const at = parts.findIndex((part) => section.groups.some((group) => group.some(({ key }) => key === part)))
  const group = section.groups.findIndex((one) => one.some(({ key }) => key === parts[at]))
  if (at < 0) return tail
  const g = `g${group + 1}`,
    s = `s${(section.groups[group]?.findIndex(({ key }) => key === parts[at]) ?? 0) + 1}`
  const before = parts.slice(0, at),
    after = parts.slice(at + 1)
  switch (section.format as Grouped) {
    case 'pairs':
    case 'ladder':
    case 'uneven':
      return (after[0] === 'break' ? [g, ...after] : [g, ...before, s, ...after]).join('/')
    case 'compound':
      return (after[0] === 'after' ? [...before, g, 'rest'] : [...before, g, s, ...after]).join('/')
    case 'burst':
    case 'pyramid':
      return [g, ...before, ...after].join('/')
    case 'buyIn':
    case 'couplet':
      return [...before, `s${group + 1}`, ...after].join('/')
  }
}
