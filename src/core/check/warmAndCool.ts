// No warm-up before hard or jumping work; no cool-down; neither in the video nor linked. And where the cautions stand.
import { newSection } from '../score/formats'
import { newStation } from '../score/formats/station'
import { freshKey } from '../score/score'
import type { Segment } from '../score/segment'
import { atSegment, finding, type Check, type Finding, type Review } from './finding'

const HARD = 4

export const checkWarmAndCool: Check = (review) => {
  const { score, expansion } = review
  const works = expansion.segments.filter((segment) => segment.kind === 'work')
  if (!works.length) return []
  const found: Finding[] = []
  const hard = works.find((segment) => isHard(segment, review))
  const warmAt = score.sections.findIndex((section) => section.format === 'warmUp')
  const hardAt = hard ? score.sections.findIndex((section) => section.key === hard.sectionKey) : -1
  if (hard && (warmAt < 0 || warmAt > hardAt)) {
    found.push(
      finding('warm-up', {
        id: 'none',
        severity: 'warning',
        ...atSegment(hard),
        what: `No warm-up before ${hard.label}, which is ${review.cast(hard.label).impact === 'high' ? 'jumping' : 'hard'} work.`,
        why: 'Cold muscles and joints take jumps and heavy work badly. A warm-up can be in this video, in another one, or left to the viewer with a reminder.',
        mend: {
          label: 'Add a warm-up',
          apply: (draft) => {
            const keys = draft.sections.map((section) => section.key)
            const opening = draft.sections.findIndex((section) => section.format !== 'talk')
            draft.sections.splice(Math.max(0, opening), 0, {
              ...newSection('warmUp', freshKey('Warm-up', keys), 'Warm-up'),
              stations: ['Heel digs', 'Mooring march', 'Windlass turn', 'Hip circles'].map((name) => newStation(name)),
            })
          },
        },
      }),
    )
  }
  if (!score.sections.some((section) => section.format === 'coolDown')) {
    found.push(
      finding('cool-down', {
        id: 'none',
        severity: 'note',
        what: 'No cool-down, neither here nor linked.',
        why: 'Viewers stop when the video stops. A few quiet holds, or a link to some, bring them down gently.',
        mend: {
          label: 'Add a cool-down',
          apply: (draft) => {
            const keys = draft.sections.map((section) => section.key)
            const last = draft.sections.at(-1)
            draft.sections.splice(last?.format === 'talk' ? draft.sections.length - 1 : draft.sections.length, 0, {
              ...newSection('coolDown', freshKey('Cool-down', keys), 'Cool-down'),
              stations: ['Stern stretch', 'Porthole turn', 'Bow stretch'].map((name) => newStation(name)),
            })
          },
        },
      }),
    )
  }
  if (score.caution === 'none') {
    found.push(
      finding('caution', {
        id: 'none',
        severity: 'warning',
        what: 'The cautions stand neither on a card nor in the description.',
        why: 'Warm up, clear the floor, stop on pain, ask a doctor first when in doubt: viewers should meet that somewhere.',
        mend: {
          label: 'Put them in both',
          apply: (draft) => {
            draft.caution = 'both'
          },
        },
      }),
    )
  }
  return found
}

const isHard = (segment: Segment, { cast }: Review): boolean =>
  (segment.effort ?? 0) >= HARD || segment.moves.some((name) => cast(name).impact === 'high')
