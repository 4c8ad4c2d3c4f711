// English sentences for findings and their mends: what, why, and what the mend does. Exhaustive over the facts.
import type { FindingFact, MendFact, NeedFact, NoEffect, TitlePromise } from '../../facts'
import { SCHOOLS } from '../../score/schools'
import { formatLength } from '../../time/clock'
import type { Ms } from '../../units'
import { problemSentence } from './problems'

export interface Sentence {
  what: string
  why: string
}

/** "11 s", or "1.5 s". */
export const inSeconds = (ms: Ms): string => `${Math.round(ms / 100) / 10} s`
/** ", 3 times", or nothing for once. */
const repeated = (times: number): string => (times === 1 ? '' : `, ${times} times`)
const about = (estimated: boolean): string => (estimated ? 'about ' : '')
const named = (section: string): string => section || 'This section'
const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join() : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

const TITLE_WORDS: Record<TitlePromise, { said: string; meaning: string }> = {
  tabata: { said: 'Tabata', meaning: '' },
  emom: { said: 'EMOM', meaning: '' },
  ladder: { said: 'ladder', meaning: 'work that changes by a step from round to round' },
  pyramid: { said: 'pyramid', meaning: 'a climb with its descent' },
  finisher: { said: 'finisher', meaning: 'a finisher' },
  warmUp: { said: 'warm-up', meaning: 'a warm-up in this video' },
  coolDown: { said: 'cool-down', meaning: 'a cool-down in this video' },
}
const CHOSEN_BY_TIME = 'People choose a video by the time they have. More than a minute, or 5 %, is noticed.'

function need(fact: NeedFact): string {
  const seconds = inSeconds(fact.ms).replace(' s', '')
  switch (fact.code) {
    case 'stand-up':
      return `stand up ${seconds}`
    case 'kneel-down':
      return `kneel down ${seconds}`
    case 'get-to-floor':
      return `get to the floor ${seconds}`
    case 'kneel':
      return `kneel ${seconds}`
    case 'leave-kneeling':
      return `change from kneeling ${seconds}`
    case 'turn-over':
      return `turn over ${seconds}`
    case 'swap-gear':
      return `swap ${fact.gear} ${seconds}`
    case 'take-gear':
      return `take ${fact.gear} ${seconds}`
    case 'change-side':
      return `change side ${seconds}`
    case 'hear-next':
      return `hear next move ${seconds}`
    case 'show-next':
      return `show the next move ${seconds}`
    case 'count-in':
      return `count in ${seconds}`
  }
}

function titleWord(word: TitlePromise, reading: string | null): Sentence {
  const { said, meaning } = TITLE_WORDS[word]
  const school = word === 'tabata' || word === 'emom' ? SCHOOLS[word] : null
  const means = school?.readings.find((one) => one.reading === reading)?.meaning ?? meaning
  return {
    what: `The title says "${said}", and nothing here is ${means}.`,
    why: school
      ? `That is what the word is set to mean in this workout (${school.why}). Change the title, the plan, or the reading under Words.`
      : 'People choose a video by its title. Change the title or the plan.',
  }
}

const NO_EFFECTS: Record<NoEffect, string> = {
  workMs: 'a length of their own',
  restMs: 'a rest of their own',
  swaps: 'what is otherwise in later passes',
}

const RESTS_ON_GUESS = 'This rests on what the moves are taken for. Look at the moves that are not in the library.'

const quoted = (names: readonly string[]): string => {
  const shown = names.slice(0, 4).map((name) => `"${name}"`)
  return listed(names.length > 4 ? [...shown, `${names.length - 4} more`] : shown)
}

function unsure(guessed: readonly string[], unknown: readonly string[]): string {
  const taken = guessed.length
    ? `${quoted(guessed)} ${guessed.length === 1 ? 'is' : 'are'} taken for moves like it`
    : ''
  const lost = unknown.length ? `${quoted(unknown)} ${unknown.length === 1 ? 'is' : 'are'} not known at all` : ''
  return `${[taken.replace('moves like it', guessed.length === 1 ? 'a move like it' : 'moves like them'), lost].filter(Boolean).join('; ')}.`
}

type Wordings = { [Code in FindingFact['code']]: (fact: Extract<FindingFact, { code: Code }>) => Sentence }

const WORDINGS: Wordings = {
  'beyond-limits': ({ problem }) => ({
    what: problemSentence(problem),
    why: 'Jivet holds 24 hours, 50,000 intervals and 10,000 stations.',
  }),
  'promise-off': ({ promiseMs, totalMs, estimated, of }) => ({
    what: `Promised ${formatLength(promiseMs)}, ${of === 'workout' ? 'the workout alone' : 'the sum'} is ${about(estimated)}${formatLength(totalMs)}: ${formatLength(Math.abs(totalMs - promiseMs))} ${totalMs > promiseMs ? 'over' : 'under'}.`,
    why: CHOSEN_BY_TIME,
  }),
  'title-word': ({ word, reading }) => titleWord(word, reading),
  'title-minutes': ({ minutes, totalMs, estimated }) => ({
    what: `The title says ${minutes} minutes, the sum is ${about(estimated)}${formatLength(totalMs)}.`,
    why: CHOSEN_BY_TIME,
  }),
  'rest-too-short': ({ from, to, needs, hasMs, times, guess, others }) => ({
    what: `From ${from} to ${to} needs about ${inSeconds(needs.reduce((sum, one) => sum + one.ms, 0))}: ${needs.map(need).join(', ')}; has ${inSeconds(hasMs)}${repeated(times)}.${others ? ` ${others === 1 ? 'Another change is' : `${others} other changes are`} too short as well.` : ''}`,
    why: guess
      ? RESTS_ON_GUESS
      : 'What does not fit into the rest eats into the work, and the count no longer matches what is seen.',
  }),
  'sides-uneven': ({ label, leftMs, rightMs, rounds, roundWord }) => ({
    what: `${label}: left ${formatLength(leftMs)}, right ${formatLength(rightMs)}; ${formatLength(Math.abs(leftMs - rightMs))} more on the ${leftMs > rightMs ? 'left' : 'right'}.`,
    why:
      rounds % 2
        ? `Sides change from one ${roundWord} to the next, and ${rounds} is odd, so one side is short.`
        : 'Both sides should get the same work.',
  }),
  'warm-up-late': ({ section }) => ({
    what: `${named(section)} comes after everything else.`,
    why: 'A warm-up stands before what it warms up for.',
  }),
  'cool-down-early': ({ section }) => ({
    what: `${named(section)} comes before anything is done.`,
    why: 'A cool-down stands at the end.',
  }),
  'no-warm-up': ({ label, jumping, guess }) => ({
    what: `No warm-up before ${label}, which is ${guess ? 'taken for ' : ''}${jumping ? 'jumping' : 'hard'} work.`,
    why: 'Cold muscles and joints take jumps and heavy work badly. A warm-up can be in this video, in another one, or left to the viewer with a reminder.',
  }),
  'no-cool-down': () => ({
    what: 'No cool-down, neither here nor linked.',
    why: 'Viewers stop when the video stops. A few quiet holds, or a link to some, bring them down gently.',
  }),
  'no-caution': () => ({
    what: 'The cautions stand neither on a card nor in the description.',
    why: 'Warm up, clear the floor, stop on pain, ask a doctor first when in doubt: viewers should meet that somewhere.',
  }),
  'caution-card-nowhere': () => ({
    what: 'The cautions are to stand on a card, and there is no opening talk for it to stand over.',
    why: 'A card hides the picture for some seconds, so it stands only while somebody talks and nothing is shown.',
  }),
  'end-card-nowhere': () => ({
    what: 'The card of what comes next has no closing talk to stand over.',
    why: 'It needs some seconds at the end in which nothing else has to be seen.',
  }),
  'same-muscles': ({ one, next, muscles, times, guess }) => ({
    what: `${one} and ${next} follow one another and both load ${listed(muscles)}${repeated(times)}.`,
    why: guess
      ? RESTS_ON_GUESS
      : muscles.includes('grip')
        ? 'Two pulls in a row tire the grip before the muscles that the moves are for.'
        : 'The second gets tired muscles. Put something else between, unless that is the idea.',
  }),
  'long-posture': ({ ms, from, guess }) => ({
    what: `${formatLength(ms)} of work without leaving one posture, from ${from} on.`,
    why: guess
      ? RESTS_ON_GUESS
      : 'Wrists, knees or back get the same load all the time. A standing move in between lets them go.',
  }),
  'posture-every-rest': ({ section, rests, shortestMs }) => ({
    what: `${named(section)} changes posture in every one of its ${rests} rests, of which the shortest is ${inSeconds(shortestMs)}.`,
    why: 'Down and up again each time leaves no rest. Put moves of one posture next to each other.',
  }),
  'not-ready': ({ from, to, talk, times }) => ({
    what: `${to} starts on the clock right after ${from || 'talk'}, without a count-in${repeated(times)}.`,
    why: talk
      ? 'Talk ends when it ends: viewers need a moment to get ready.'
      : `${from} is at one's own pace, and nobody ends it at the same instant: viewers need a moment to get ready.`,
  }),
  'no-effect': ({ section, settings }) => ({
    what: `${named(section)} does not hear ${listed(settings.map((one) => NO_EFFECTS[one]))} of its moves.`,
    why: 'Its format has no place for that. Choose another format, or take it off.',
  }),
  'repeats-nothing': ({ section }) => ({
    what: `${named(section)} repeats a section that is not there.`,
    why: 'Choose which one it repeats.',
  }),
  'buy-in-too-long': ({ label, takesMs, workMs }) => ({
    what: `${label} take about ${inSeconds(takesMs)}, and the interval is ${inSeconds(workMs)}.`,
    why: 'Nothing is left of it for what comes after the buy-in.',
  }),
  'station-unnamed': () => ({ what: 'A station has no move yet.', why: 'Viewers would see an empty label.' }),
  'moves-unsure': ({ guessed, unknown }) => ({
    what: unsure(guessed, unknown),
    why: 'What they need is only guessed until you say so: nothing that rests on it is more than a note.',
  }),
  'no-easier': ({ names, jumping }) => ({
    what: `${quoted(names)} ${names.length === 1 ? 'has' : 'have'} no easier version noted.`,
    why: `${names.length === 1 ? 'It is' : 'They are'} ${jumping ? 'jumping' : 'all-out'} work; somebody watching will need another way.`,
  }),
  'no-gear': ({ names }) => ({
    what: `${quoted(names)} ${names.length === 1 ? 'is' : 'are'} loaded, and no gear is noted.`,
    why: 'Viewers want to lay things out before they press play.',
  }),
  'no-moves': ({ section }) => ({
    what: `${named(section)} has no moves yet.`,
    why: 'It takes no time and shows nothing.',
  }),
  'group-too-small': ({ section }) => ({
    what: `A group of ${named(section)} has one move; it needs two.`,
    why: 'Moves that belong together are joined by "+".',
  }),
  'lasts-nothing': ({ label, times }) => ({
    what: `${label || 'An interval'} lasts nothing${repeated(times)}.`,
    why: 'It is not shown and not heard.',
  }),
  'too-short-to-count': ({ label, ms, times }) => ({
    what: `${label || 'Work'} lasts ${inSeconds(ms)}: three pips and the tone run into one another${repeated(times)}.`,
    why: 'A countdown needs about four seconds.',
  }),
  'label-long': ({ label, letters, most, times }) => ({
    what: `"${label}" has ${letters} letters${repeated(times)}.`,
    why: `More than about ${most} get too small to be read from across the room.`,
  }),
  'one-round': ({ word }) => ({
    what: `There is one ${word} only.`,
    why: `"${capital(word)} 1 of 1" reads as if more were to come; it is left out on screen.`,
  }),
  'not-understood': ({ line }) => ({
    what: `Not understood: "${line}".`,
    why: 'It is kept as a line that starts with "?" in the shorthand. Write it another way, or take the line out.',
  }),
  'reps-with-lengths': ({ section }) => ({
    what: `${named(section)} is counted in reps, yet some of its moves have a length.`,
    why: "A clock on something done at one's own pace is misread as a limit.",
  }),
  'slot-overflows': ({ section, topMs, slotMs }) => ({
    what: `${named(section)} grows to ${formatLength(topMs)}, and its slot is ${formatLength(slotMs)}.`,
    why: 'From there on it is cut to the slot and has no rest.',
  }),
  'group-overflows-slot': ({ label, takesMs, slotMs }) => ({
    what: `${label} take about ${inSeconds(takesMs)} together; the slot is ${inSeconds(slotMs)}.`,
    why: 'From there on they are cut to the slot and have no rest.',
  }),
  'reps-overflow-slot': ({ reps, label, takesMs, slotMs, secondsPerRep }) => ({
    what: `${reps} ${label} take about ${inSeconds(takesMs)}; the slot is ${inSeconds(slotMs)}.`,
    why: perRep(secondsPerRep),
  }),
  'rest-not-as-wanted': ({ reps, label, restMs, wantedMs, secondsPerRep }) => ({
    what: `${reps} ${label} leave about ${inSeconds(restMs)} of rest; ${inSeconds(wantedMs)} is wanted.`,
    why: perRep(secondsPerRep),
  }),
  'climb-too-short': ({ climbMs, moves }) => ({
    what: `${formatLength(climbMs)} is too short for the first rung of ${moves.join(' + ')}.`,
    why: 'There is nothing to come back down from.',
  }),
  'couplet-too-short': ({ workMs, moves }) => ({
    what: `${formatLength(workMs)} is too short for once round ${moves.join(' + ')}.`,
    why: 'Nobody would have a number to count.',
  }),
}

const perRep = (seconds: number): string =>
  `At ${Math.round(seconds * 10) / 10} s a rep. More left than wanted: add; less: take off.`

export const findingSentence = (fact: FindingFact): Sentence =>
  // Each wording takes its own fact only; the code says which, and the compiler cannot know that.
  (WORDINGS[fact.code] as (fact: FindingFact) => Sentence)(fact)

export function mendLabel(fact: MendFact): string {
  switch (fact.code) {
    case 'take-lengths-off':
      return 'Take the lengths off'
    case 'take-out':
      return 'Take it out'
    case 'take-off':
      return 'Take it off'
    case 'lead-in':
      return `Count in for ${inSeconds(fact.ms)}`
    case 'both-sides':
      return 'Both sides in every turn'
    case 'add-warm-up':
      return 'Add a warm-up'
    case 'add-cool-down':
      return 'Add a cool-down'
    case 'add-opening-talk':
      return 'Talk for 12 s at the start'
    case 'add-closing-talk':
      return 'Talk for 12 s at the end'
    case 'caution-both':
      return 'Put them in both'
    case 'step-of':
      return `Step of ${formatLength(fact.ms)}`
    case 'make-it':
      return `Make it ${inSeconds(fact.ms)}`
    case 'set-reps':
      return `${fact.reps} reps`
    case 'promise-minutes':
      return `Promise ${fact.minutes} min${fact.title ? ', in the title too' : ''}`
    case 'title-minutes':
      return `Say ${fact.minutes} in the title`
  }
}
