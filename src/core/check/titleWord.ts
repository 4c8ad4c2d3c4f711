// A word in the title promises a format that the score is not, in the reading that the creator chose.
import type { Section } from '../score/formats'
import { SCHOOLS } from '../score/schools'
import type { Score } from '../score/score'
import { finding, type Check, type Finding } from './finding'

const bursts = (score: Score): Extract<Section, { format: 'burst' }>[] => score.sections.flatMap((section) => (section.format === 'burst' ? [section] : []))

function isTabata(score: Score): boolean {
  switch (score.readings.tabata) {
    case 'strict': return bursts(score).some((one) => one.workMs === 20_000 && one.restMs === 10_000 && one.intervals === 8)
    case 'double': return score.sections.some((one) => 'workMs' in one && 'restMs' in one && one.restMs > 0 && one.workMs === 2 * one.restMs)
    case 'burst': return bursts(score).length > 0 || score.sections.some((one) => 'workMs' in one && 'restMs' in one && one.workMs <= 30_000 && one.restMs > 0)
  }
}

const isEmom = (score: Score): boolean => score.sections.some((one) => one.format === (score.readings.emom === 'reps' ? 'minuteReps' : 'minuteTime'))

export const checkTitleWord: Check = ({ score }) => {
  const found: Finding[] = []
  const title = score.title.toLowerCase()
  for (const [word, holds] of [['tabata', isTabata], ['emom', isEmom]] as const) {
    if (!new RegExp(`\\b${word}\\b`).test(title) || holds(score)) continue
    const school = SCHOOLS[word]
    const meaning = school.readings.find((one) => one.reading === score.readings[word])?.meaning ?? ''
    found.push(finding('title', {
      id: word, severity: 'warning', what: `The title says "${school.word}", and nothing here is ${meaning}.`,
      why: `That is what the word is set to mean in this workout (${school.why}). Change the title, the plan, or the reading under Words.`,
    }))
  }
  return found
}
