import { describe, expect, it } from 'vitest'
import { asPlanned, type ShownSegment } from '../cut/cut'
import { expand } from '../expand/expand'
import { readShorthand } from '../shorthand/read'
import { RULES } from './cue'
import { cueSheet, linesIn } from './cues'
import { CUE_RULES } from './rules'
import { UNEDITED, USUAL_CUES, type CueWishes } from './wishes'

const SPOKEN: CueWishes = { ...USUAL_CUES, voice: 'flite' }
const plan = (text: string) => {
  const { score, problems } = readShorthand(text)
  expect(problems).toEqual([])
  return { lane: asPlanned(expand(score).segments), moves: score.moves }
}
const CIRCUIT = 'circuit Main: 2 rounds, 40 on, 20 off, 50 between, lead 8, last rest dropped\n'
const TWO = `${CIRCUIT}  Jug lift (weight 6 kg, sides alternate)\n  Keel hold\n`
/** Seconds and what is said then. */
const said = (text: string, wishes = SPOKEN): string[] => {
  const { lane, moves } = plan(text)
  return cueSheet(lane, { wishes, moves }).cues.flatMap(({ line, atMs }) =>
    line === null ? [] : [`${Math.floor(atMs / 1000)} ${line}`],
  )
}
const tones = (text: string, wishes = USUAL_CUES): string[] => {
  const { lane } = plan(text)
  return cueSheet(lane, { wishes }).cues.flatMap(({ sound, atMs }) =>
    sound === null || sound === 'pip' ? [] : [`${atMs / 1000} ${sound}`],
  )
}

describe('a rule', () => {
  it.each(RULES)('%s asks within its interval, in windows that hold, under names of its own', (name) => {
    const { lane, moves } = plan(`${TWO}minute-reps Each: 3 rounds\n  10 Rope pull\n`)
    const wishes = { ...SPOKEN, rules: Object.fromEntries(RULES.map((one) => [one, one === name])) }
    expect(CUE_RULES[name].name).toBe(name)
    const { cues, findings } = cueSheet(lane, { wishes, moves })
    const ids = [...cues, ...findings].map(({ id }) => id)
    expect(new Set(ids).size).toBe(ids.length)
    for (const { atMs, segmentId, rule } of [...cues, ...findings]) {
      const laid = lane.find(({ segment }) => segment.id === segmentId)
      expect(rule).toBe(name)
      // What a slot counts is counted past the work that it begins with.
      if (name !== 'minute') expect(atMs).toBeLessThanOrEqual(laid?.endMs ?? 0)
      expect(atMs).toBeGreaterThanOrEqual(laid?.startMs ?? Infinity)
    }
  })
})

describe('what is said', () => {
  it('is what comes next, with its side, what to take and how long, where there is time', () => {
    const lines = said(TWO)
    expect(lines[0]).toMatch(/^0 Next: Jug lift, left\. With 6 kg, water jug$/)
    expect(lines).toContain('48 Next: Keel hold. 40 seconds')
  })
  it('is less in a short rest, and the name alone in the shortest', () => {
    const short = (off: number): string[] =>
      said(`circuit Main: 1 round, 20 on, ${off} off\n  Jug lift (weight 6 kg)\n  Lantern reach (weight 6 kg)\n`)
    expect(short(10).find((one) => one.includes('Lantern'))).toBe('20 Next: Lantern reach, left. With 6 kg. 20 seconds')
    expect(short(6).find((one) => one.includes('Lantern'))).toBe('20 Next: Lantern reach, left')
    expect(short(5.2).find((one) => one.includes('Lantern'))).toBe('20 Lantern reach')
    expect(short(4).find((one) => one.includes('Lantern'))).toBeUndefined()
  })
  it('of the middle and the last ten seconds holds for what was planned, however many milliseconds were filmed', () => {
    const { lane } = plan('circuit Main: 1 round, 30 on, 15 off\n  Jug lift; Keel hold\n')
    const wishes = { ...USUAL_CUES, rules: { ten: true } }
    const soundsWith = (offMs: number): string[] => {
      const filmed = lane.map((one, at) => (at === 0 ? { ...one, endMs: one.endMs + offMs } : one))
      return cueSheet(filmed, { wishes })
        .cues.filter(({ segmentId }) => segmentId === lane[0]?.segment.id)
        .flatMap(({ sound }) => (sound === 'halfway' || sound === 'ten' ? [sound] : []))
    }
    for (const offMs of [0, -15, 15, -900]) expect(soundsWith(offMs), String(offMs)).toEqual(['halfway', 'ten'])
    // An interval that was broken off has neither.
    expect(soundsWith(-20_000)).toEqual([])
  })
  it('is halfway, the other side, the last round and the last one, after their tones', () => {
    expect(said(TWO)).toEqual(expect.arrayContaining(['28 Halfway', '159 Last round', '219 Last one']))
    expect(said(`circuit Main: 1 round, 40 on, 20 off\n  Jug lift (sides halves)\n`)).toContain('20 Right side')
  })
  it('is ten seconds and the easier way only where they are wanted', () => {
    const wanted = { ...SPOKEN, rules: { ten: true, easier: true } }
    expect(said(TWO)).not.toContain('38 Ten seconds')
    expect(said(TWO, wanted)).toEqual(expect.arrayContaining(['38 Ten seconds', '10 Easier: Half-full jug']))
  })
  it('is the number of reps, and what is left of a minute', () => {
    const lines = said('minute-reps Each: 2 rounds\n  10 Rope pull\n')
    expect(lines.filter((one) => one.includes('10 reps')).length).toBeGreaterThan(0)
    expect(lines).toEqual(expect.arrayContaining(['40 Twenty left in this minute']))
  })
  it('is nothing without a voice', () => expect(said(TWO, USUAL_CUES)).toEqual([]))
})

describe('what sounds', () => {
  it('has a twin for what is shown: halfway, the last round, the last one, the end', () => {
    expect(tones(TWO)).toEqual([
      ...['8 go', '28 halfway', '48 rest', '68 go', '88 halfway', '108 rest'],
      ...['158 go', '158.7 last', '178 halfway', '198 rest', '218 go', '218.7 last', '238 halfway', '258 end'],
    ])
  })
  it('is nothing where nobody knows when it is', () => {
    expect(tones('sets Main: 3 sets, 20 off\n  10 Jug lift\n').filter((one) => one.endsWith('halfway'))).toEqual([])
  })
})

describe('what was changed by hand', () => {
  const { lane } = plan(TWO)
  const first = 'main/r1/s1/work#halfway'
  const id = cueSheet(lane).cues.find(({ rule }) => rule === 'halfway')?.id ?? ''
  const withEdit = (edit: Partial<typeof UNEDITED>, of = id, lanes: ShownSegment[] = lane) =>
    cueSheet(lanes, { wishes: { ...SPOKEN, edits: { [of]: { ...UNEDITED, ...edit } } } })
  it('is named by its interval and its rule', () => expect(id.endsWith(first.slice(4))).toBe(true))
  it('is silent, moved, or says something else', () => {
    expect(withEdit({ muted: true }).cues.some((cue) => cue.id === id)).toBe(false)
    expect(withEdit({ muted: true }).muted.map((cue) => cue.id)).toEqual([id])
    expect(withEdit({ shiftMs: 400 }).cues.find((cue) => cue.id === id)?.atMs).toBe(28_400)
    expect(withEdit({ line: 'Half of it' }, `${id}#said`).cues.find((cue) => cue.id === `${id}#said`)?.line).toBe(
      'Half of it',
    )
  })
  it('stays so while the plan changes around it, and waits while its interval is gone', () => {
    const longer = plan(TWO.replace('lead 8', 'lead 20')).lane
    expect(withEdit({ shiftMs: 400 }, id, longer).cues.find((cue) => cue.id === id)?.atMs).toBe(40_400)
    const gone = lane.filter(({ segment }) => !id.startsWith(segment.id))
    expect(withEdit({ muted: true }, id, gone).muted).toEqual([])
  })
  it('has every wording told, so that it can be had ahead of time', () => {
    const lines = linesIn(lane, { wishes: SPOKEN })
    expect(lines).toEqual(expect.arrayContaining(['Keel hold', 'Next: Keel hold', 'Next: Keel hold. 40 seconds']))
    expect(linesIn(lane)).toEqual([])
  })
})
