// The moves that come with Jivet: those of the demo's narrowboat, and plain ones that everybody knows.
// One line each: name | cue | posture | muscles | impact | effort | sides | gear | easier | harder | caution | seconds
// per rep | tags
import type { Move } from './move'
import type { Impact, Muscle, Posture, SideRule, StandingLeg } from './postures'
import { OTHER_NAMES, USUAL_LINES } from './usualMoves'

export type { Move } from './move'

const LINES = `
Jug lift | hips back, jug close | standing | back hips thighs | still | 3 | alternate | water jug | Half-full jug | Pause at the knee | Keep the back long and the jug close to you. | 3 | boat strength
Lock-gate push | push the deck away | handsFeet | chest shoulders arms trunk | still | 4 | none | | Hands on the cabin step | Slow on the way down | Hands under the shoulders; stop if a wrist hurts. | 3 | boat strength
Gangway step | up, up, down, down | standing | thighs hips calves | high | 5 | alternate | cabin step | Step without the hop | Add a knee lift | Whole foot on the step; make sure it cannot slide. | 2 | boat cardio
Towel tear | pull it apart, all the way | standing | shoulders back arms | still | 2 | none | tea towel | Shorter pulls | Hold each pull | | 2 | boat
Rope pull | hand over hand | kneeling | back arms grip | still | 3 | none | rolled rope | Loose rope | Faster hands | Fold a towel under the knees. | 2 | boat strength
Bilge crawl | low hips, soft knees | handsFeet | shoulders trunk thighs | low | 4 | none | | Knees down | Stay lower | Clear the floor two metres ahead. | 2 | boat cardio
Tiller twist | turn from the ribs | seated | trunk | still | 2 | halves | | Feet down | Feet up | Turn slowly; the back stays long. | 3 | boat trunk
Lantern reach | reach for the hook | standing | shoulders trunk | still | 2 | alternate | | Lower reach | Stand on one foot | Check the ceiling first. | 3 | boat
Cabin-step dip | elbows back, hips near | faceUp | arms chest shoulders | still | 4 | none | cabin step | Feet closer | Legs straight | The step must stand firm; stop if a shoulder pinches. | 3 | boat strength
Keel hold | one long line | faceDown | trunk shoulders | still | 3 | none | | On the knees | Lift one foot | Hips level with the shoulders; breathe. | 4 | boat trunk hold
Hatch bridge | press the heels, lift | faceUp | hips thighs trunk | still | 2 | none | | Smaller lift | One leg | | 3 | boat
Heel digs | heel out, toe up | standing | calves thighs | still | 1 | none | | Hold the rail | Faster | | 2 | boat warm-up
Deck-rail squat | sit back, chest up | standing | thighs hips | still | 4 | none | deck rail | Hold the rail | Let go of the rail | Knees in line with the toes. | 3 | boat strength
Anchor row | elbow past the ribs | kneeling | back arms grip | still | 3 | alternate | water jug | Half-full jug | Pause at the top | Fold a towel under the knees; back long. | 3 | boat strength
Mooring march | knees up, stay tall | standing | thighs hips | low | 2 | none | | Lower knees | Arms overhead | | 1 | boat warm-up
Windlass turn | big circles | standing | shoulders arms | still | 1 | none | | Smaller circles | Hold the jug | | 2 | boat warm-up
Pump-out hop | soft landing, both feet | standing | calves thighs | high | 5 | none | | Rise onto the toes | Higher | Land softly, knees over toes; check the headroom. | 1.5 | boat cardio
Fender squeeze | knees in, slow | faceUp | thighs trunk | still | 2 | none | tea towel | Feet down | Lift the head | | 3 | boat
Roof-walk lunge | long step, soft knee | standing | thighs hips | still | 4 | alternate | | Shorter step | Hold the jug | Front knee over the foot. | 3 | boat strength
Bow stretch | reach long and low | kneeling | back shoulders | still | 1 | none | | Cushion under the hips | Longer reach | Ease off if a knee complains. | 6 | boat stretch
Stern stretch | heel to seat | standing | thighs | still | 1 | each | deck rail | Hold the rail | Let go | Knees side by side. | 6 | boat stretch
Porthole turn | look over the shoulder | seated | trunk back | still | 1 | each | | Smaller turn | Longer hold | Turn only as far as is easy. | 6 | boat stretch
Squat | sit back, stand tall | standing | thighs hips | still | 3 | none | | To a chair | Pause at the bottom | Knees in line with the toes. | 3 | plain strength
Jump squat | land like a cat | standing | thighs hips calves | high | 5 | none | | Squat without the jump | Higher | Land softly, knees over toes. | 2 | plain cardio
Goblet squat | weight at the chest | standing | thighs hips arms | still | 4 | none | weight | Lighter weight | Pause at the bottom | Back long; choose a weight you can put down quietly. | 3.5 | plain strength
Lunge | step, sink, return | standing | thighs hips | still | 3 | byRep | | Shorter step | Hold weights | Front knee over the foot. | 3 | plain strength
Reverse lunge | step back, sink | standing | thighs hips | still | 3 | byRep | | Hold a wall | Hold weights | | 3 | plain strength
Side lunge | sit to one side | standing | thighs hips | still | 3 | byRep | | Smaller step | Hold a weight | | 3 | plain strength
Split squat | straight down, straight up | standing | thighs hips | still | 4 | alternate | | Hold a wall | Back foot raised | Front knee over the foot. | 3 | plain strength
Jumping lunge | switch in the air | standing | thighs hips calves | high | 5 | byRep | | Step instead of jump | Faster | Land softly; stop when the landing gets loud. | 1.5 | plain cardio
Step-up | whole foot, stand tall | standing | thighs hips | low | 3 | alternate | step | Lower step | Hold weights | The step must stand firm. | 3 | plain strength
Calf raise | up on the toes, slow down | standing | calves | still | 2 | none | | Hold a wall | One leg | | 2 | plain
Wall sit | back flat, hold | standing | thighs | still | 4 | none | wall | Sit higher | One heel up | | 4 | plain hold
Good morning | hips back, back long | standing | back hips thighs | still | 2 | none | | Smaller bow | Hold a weight | Stop where the back would round. | 3 | plain
Deadlift | push the floor away | standing | back hips thighs grip | still | 4 | none | weight | Lighter weight | Slow on the way down | Back long, weight close. | 4 | plain strength
One-leg deadlift | hips level, reach back | standing | hips thighs back | still | 4 | alternate | | Toes stay down | Hold a weight | | 4 | plain strength
Swing | hips snap, arms loose | standing | hips thighs back grip | low | 5 | none | weight | Deadlift instead | Heavier | Nobody and nothing in front of you. | 2 | plain cardio
Overhead press | ribs down, press | standing | shoulders arms | still | 3 | none | weight | Lighter weight | One arm | Check the ceiling. | 3 | plain strength
Bent-over row | elbow past the ribs | standing | back arms grip | still | 3 | none | weight | Lighter weight | Pause at the top | Back long. | 3 | plain strength
Biceps curl | elbows still | standing | arms grip | still | 2 | none | weight | Lighter weight | Slow on the way down | | 3 | plain strength
Lateral raise | lift to the shoulder | standing | shoulders | still | 3 | none | weight | Bend the elbows | Pause at the top | | 3 | plain strength
March on the spot | knees up, arms swing | standing | thighs hips | low | 1 | byRep | | Lower knees | Faster | | 1 | plain warm-up
Step touch | side to side | standing | thighs calves | low | 1 | byRep | | Smaller steps | Add arms | | 1 | plain warm-up
Arm circles | forward, then back | standing | shoulders | still | 1 | none | | Smaller circles | Longer arms | | 2 | plain warm-up
Hip circles | round and round | standing | hips | still | 1 | none | | Smaller circles | | | 3 | plain warm-up
Jumping jack | out and in, land soft | standing | shoulders calves thighs | high | 4 | none | | Step out instead | Faster | Land softly. | 1 | plain cardio
High knees | run on the spot | standing | thighs hips calves | high | 5 | byRep | | March | Faster | Land softly. | 0.8 | plain cardio
Skater | leap side to side | standing | thighs hips calves | high | 5 | byRep | | Step side to side | Touch the floor | Dry floor, soft knee. | 1.5 | plain cardio
Shadow boxing | light feet, long arms | standing | shoulders arms trunk | low | 3 | byRep | | Feet still | Faster | | 1 | plain cardio
Press-up | one long line | handsFeet | chest shoulders arms trunk | still | 4 | none | | Hands raised, or on the knees | Feet raised | Stop if a wrist or shoulder hurts. | 3 | plain strength
Shoulder tap | hips still, tap | handsFeet | shoulders trunk | still | 3 | byRep | | On the knees | Feet together | | 1.5 | plain trunk
Mountain climber | knees drive, hips low | handsFeet | trunk shoulders thighs | low | 4 | byRep | | Step slowly | Faster | | 1 | plain cardio
Burpee | down, back, up, reach | handsFeet | thighs chest shoulders trunk | high | 5 | none | | Step back, no jump | Add a press-up | Land softly; choose the stepped version when tired. | 4 | plain cardio
Inchworm | walk out, walk in | handsFeet | shoulders trunk thighs | still | 3 | none | | Bend the knees | Add a press-up | | 6 | plain
Bear hold | knees hover | handsFeet | trunk shoulders thighs | still | 4 | none | | Knees down | Lift a hand | | 4 | plain hold
Plank | one long line | faceDown | trunk shoulders | still | 3 | none | | On the knees | Lift one foot | Hips level with the shoulders. | 4 | plain hold
Side plank | hips up, stack | faceDown | trunk shoulders | still | 4 | halves | | Lower knee down | Lift the top leg | | 4 | plain hold
Back extension | lift long, look down | faceDown | back hips | still | 2 | none | | Smaller lift | Arms long | | 3 | plain
Swimmer | opposite arm and leg | faceDown | back hips shoulders | still | 2 | byRep | | Arms only | Faster | | 1.5 | plain
Glute bridge | press the heels, lift | faceUp | hips thighs | still | 2 | none | | Smaller lift | One leg | | 3 | plain
One-leg bridge | hips level, lift | faceUp | hips thighs | still | 3 | alternate | | Both feet | Pause at the top | | 3 | plain strength
Dead bug | back heavy, reach | faceUp | trunk | still | 2 | byRep | | Legs only | Slower | | 3 | plain trunk
Crunch | ribs to hips | faceUp | trunk | still | 2 | none | | Hands behind the thighs | Slower | Do not pull on the head. | 2 | plain trunk
Leg lower | back heavy, slow | faceUp | trunk hips | still | 3 | none | | Bend the knees | Slower | Stop where the back would arch. | 4 | plain trunk
Floor press | elbows touch, press | faceUp | chest arms shoulders | still | 3 | none | weight | Lighter weight | One arm | | 3 | plain strength
Chair dip | elbows back | faceUp | arms chest shoulders | still | 4 | none | chair | Feet closer | Legs straight | The chair must stand firm. | 3 | plain strength
Seated twist | turn from the ribs | seated | trunk | still | 3 | byRep | | Heels down | Hold a weight | | 2 | plain trunk
Seated march | tall, lift | seated | thighs hips trunk | still | 1 | byRep | chair | Lower | Arms overhead | | 1 | plain warm-up
Tall-kneeling press | ribs down, press | kneeling | shoulders arms trunk | still | 3 | none | weight | Lighter weight | One arm | Fold a towel under the knees. | 3 | plain strength
Half-kneeling chop | high to low | kneeling | trunk shoulders | still | 3 | alternate | weight | No weight | Slower | Fold a towel under the knee. | 3 | plain trunk
Hip flexor stretch | tuck and lean | kneeling | hips thighs | still | 1 | each | | Cushion under the knee | Reach up | | 6 | plain stretch
Hamstring stretch | chest to knee | seated | thighs back | still | 1 | each | | Bend the knee | Longer hold | | 6 | plain stretch
Chest opener | hands behind, lift | standing | chest shoulders | still | 1 | none | | Hands on hips | Longer hold | | 6 | plain stretch
Child's pose | sit back, breathe | kneeling | back hips | still | 1 | none | | Cushion under the hips | Walk the hands | | 8 | plain stretch
Figure-four stretch | ankle over knee | faceUp | hips | still | 1 | each | | Foot on the floor | Pull closer | | 8 | plain stretch
Walk it out | easy steps, breathe | standing | calves | low | 1 | none | | Stand and breathe | | | 1 | plain rest
`

/** Of moves that are done on one leg, which one that is when a side is called. */
const STANDS_ON: Readonly<Record<string, StandingLeg>> = {
  'One-leg deadlift': 'same',
  'One-leg squat': 'same',
  'One-leg chair squat': 'same',
  'One-leg reach': 'same',
  'One-leg calf raise': 'same',
  'One-leg hop': 'same',
  'Standing leg lift': 'other',
  'Standing kickback': 'other',
  'Leg swing': 'other',
  'Thigh stretch': 'other',
  'Stern stretch': 'other',
}

const words = (cell: string): string[] => cell.split(' ').filter(Boolean)

function readLine(line: string): Move {
  const [
    name = '',
    cue = '',
    posture = '',
    muscles = '',
    impact = '',
    effort = '',
    sideRule = '',
    gear = '',
    easier = '',
    harder = '',
    caution = '',
    seconds = '',
    tags = '',
  ] = line.split('|').map((cell) => cell.trim())
  return {
    name,
    short: name,
    cue,
    posture: posture as Posture,
    muscles: words(muscles) as Muscle[],
    impact: impact as Impact,
    effort: Number(effort),
    sideRule: sideRule as SideRule,
    standingLeg: STANDS_ON[name] ?? 'unknown',
    gear: gear ? gear.split(',').map((one) => one.trim()) : [],
    easier,
    harder,
    caution,
    secondsPerRep: Number(seconds),
    tags: words(tags),
  }
}

/** What holds for every move that needs such a thing. */
const CAUTIONS: Readonly<Record<string, string>> = {
  step: 'The step must stand firm; whole foot on it.',
  box: 'The box must stand firm; step down, do not jump.',
  chair: 'The chair must stand firm and not slide.',
  weight: 'Choose a weight that you can put down quietly.',
  rope: 'Check the ceiling; land softly.',
}

/** A line of the usual vocabulary, with the other names of its move. */
function readUsual(line: string): { move: Move; names: string[] } {
  const [
    name = '',
    posture = '',
    muscles = '',
    impact = '',
    effort = '',
    sides = '',
    gear = '',
    seconds = '',
    ...more
  ] = line.split('|').map((cell) => cell.trim())
  const [easier = '', tags = '', names = ''] = more
  const move = readLine(
    [
      name,
      '',
      posture,
      muscles,
      impact,
      effort,
      sides,
      gear,
      easier,
      '',
      CAUTIONS[gear] ?? '',
      seconds,
      `plain ${tags}`,
    ].join('|'),
  )
  return { move, names: listed(names) }
}

const listed = (cell: string): string[] =>
  cell
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean)

const USUAL = USUAL_LINES.trim().split('\n').map(readUsual)

export const MOVES: readonly Move[] = [...LINES.trim().split('\n').map(readLine), ...USUAL.map(({ move }) => move)]

/** Every other name of a move that ships, with the move's own. */
export const OTHER_NAMES_OF: readonly (readonly [other: string, move: string])[] = [
  ...Object.entries(OTHER_NAMES).flatMap(([move, names]) => listed(names).map((other) => [other, move] as const)),
  ...USUAL.flatMap(({ move, names }) => names.map((other) => [other, move.name] as const)),
]

const BY_NAME = new Map(MOVES.map((entry) => [entry.name.toLowerCase(), entry]))

/** Names are the same whatever their capitals and the blanks around them. */
export const sameName = (one: string, other: string): boolean => one.trim().toLowerCase() === other.trim().toLowerCase()

/** The move of that name, whatever its capitals; undefined for a name of the creator's own. */
export function moveNamed(name: string): Move | undefined {
  return BY_NAME.get(name.trim().toLowerCase())
}
