// The words of the Score view and the move library: part of the one catalogue, kept apart for its size.
import type { FormatName } from '@/core/score/formats'
import type { Muscle, Posture, SideRule, Impact } from '@/core/score/postures'

const formats: Record<FormatName, readonly [name: string, about: string]> = {
  circuit: ['Circuit', 'Stations in turn, round after round'],
  byStation: ['Station by station', 'All sets of one move, then the next'],
  pairs: ['Alternating pairs', 'A B A B, then the next pair'],
  burst: ['Short bursts', '20 on, 10 off, eight times'],
  straight: ['Straight through', 'No rest inside a pass'],
  ladder: ['Ladder', 'Work grows, rest is as long'],
  slot: ['Fixed slot', 'Work grows, rest shrinks, the slot stays'],
  table: ['Per-round table', 'Each round has its own lengths'],
  growingBreak: ['Growing break', 'No rest, but longer and longer breaks'],
  compound: ['Compound slot', 'One long move, then short ones back to back'],
  uneven: ['Uneven group', 'Every part has its own length'],
  buyIn: ['Buy-in', 'Reps of one, then another for what is left'],
  couplet: ['Couplet on a clock', 'Two moves round and round until time is up'],
  minuteReps: ['Every minute, by reps', 'What is left of the minute is rest'],
  minuteTime: ['Every minute, by time', 'Work and rest that fill the minute'],
  pyramid: ['Rep pyramid', 'Up until time is up, then back down'],
  sets: ['Sets by reps', 'No clock, length is a guess'],
  finisher: ['Finisher', 'Reps times rounds, own pace'],
  warmUp: ['Warm-up', 'Timed and counted moves without rest'],
  coolDown: ['Cool-down', 'Holds, each side in turn'],
  list: ['Free list', 'Any intervals in any order'],
  talk: ['Talk', 'Its true length comes from the footage'],
  break: ['Break', 'Between two sections'],
}

const fields: Record<string, string> = {
  rounds: 'Rounds', sets: 'Sets', times: 'Times A B', intervals: 'Intervals', rungs: 'Rungs', passes: 'Passes', steps: 'Rungs', workMs: 'Work', restMs: 'Rest', roundBreakMs: 'Between rounds', leadInMs: 'Lead-in',
  lastRest: 'Last rest', restLabel: 'Rest is', changeMs: 'To change', pairBreakMs: 'Between pairs', talkMs: 'Talk before', burstBreakMs: 'Between bursts', gapMs: 'Gap', startMs: 'From', stepMs: 'Step',
  restAfter: 'Rest after each', groupBreakMs: 'Between groups', slotMs: 'Slot', shape: 'Shape', breakMs: 'First break', breakStepMs: 'Grows by', longMs: 'Long', longRestMs: 'Rest after long', shortMs: 'Short',
  slotRestMs: 'After each slot', passBreakMs: 'Between passes', wantedRestMs: 'Wanted rest', climbMs: 'Climb for', startReps: 'First reps', stepReps: 'More each time', groupRestMs: 'Between groups',
  where: 'Where', link: 'Link', reminderMs: 'Reminder', guessMs: 'Guess', durationMs: 'Length', from: 'Was',
}

const sides: Record<SideRule, string> = { none: 'no sides', alternate: 'alternating', halves: 'halves', each: 'each side', left: 'left', right: 'right', both: 'both' }
const postures: Record<Posture, string> = { standing: 'standing', kneeling: 'kneeling', handsFeet: 'hands and feet', faceUp: 'lying face up', faceDown: 'lying face down', seated: 'seated' }
const muscles: Record<Muscle, string> = { shoulders: 'shoulders', chest: 'chest', back: 'back', arms: 'arms', grip: 'grip', trunk: 'trunk', hips: 'hips', thighs: 'thighs', calves: 'calves' }
const impacts: Record<Impact, string> = { still: 'feet stay', low: 'a foot lifts', high: 'jumps' }

export const scoreTexts = {
  formats, fields, sides, postures, muscles, impacts,
  choices: { kept: 'kept', dropped: 'dropped', replaced: 'replaced by break', station: 'move', round: 'round', up: 'up', upAndDown: 'up and back', here: 'in this video', linked: 'in another video', viewer: 'left to the viewer' } as Record<string, string>,
  readings: { sections: 'Sections', sheet: 'Running sheet', shorthand: 'Shorthand', balance: 'Balance' },
  addSection: 'Add section', fromPromise: 'From a promise', paste: 'Paste a plan', wordsAndRules: 'Words and rules', beat: 'On the beat', print: 'Print', printSheet: 'Running sheet on one page', printBoard: 'Wall board', more: 'More',
  total: 'total', work: 'work', rest: 'rest', ratio: 'work to rest', ends: 'ends at', about: 'about',
  promise: 'Promised', promiseNone: 'nothing promised', over: (by: string) => `${by} over`, under: (by: string) => `${by} under`, kept: 'kept',
  undo: 'Undo', redo: 'Redo',
  saved: 'Saved', saving: 'Saving', unsaved: 'Not saved yet', offline: 'The server does not answer. Your changes are kept here and saved when it does.',
  refused: (why: string) => `Not saved: ${why} It is kept here and tried again with your next change.`,
  empty: 'Nothing here yet. Give Jivet the minutes you promise, paste a plan you have typed before, or add a section.',
  workFor: 'Work', restFor: 'Rest', reps: 'Reps', station: 'Move', side: 'Sides', posture: 'Posture', effort: 'Effort', addStation: 'Add move', addGroup: 'Add group', joinMove: 'Join a move', newStation: 'New move', group: 'Group',
  swap: 'Another move in a later pass', swapFrom: 'from pass', addSwap: 'Add a swap', own: 'as the move',
  move: 'Move this row: space, then arrow keys', remove: 'Remove', sectionMenu: 'Section', removeSection: 'Remove section', duplicate: 'Duplicate', toList: 'Turn into a free list', recognise: 'Recognise the format', notRecognised: 'No format gives exactly these intervals.', recognised: (name: string) => `This is: ${name}.`,
  fold: 'Fold', unfold: 'Unfold', sectionName: 'Name of the section', untitled: 'Untitled', keepTotal: 'Keep the total by changing', keepNothing: 'nothing', cannotKeep: 'That number cannot make up for it.',
  badLength: 'A length like 45, 1:15 or 2m 30s, up to 24 hours', badLengths: 'Lengths like 40 then 20', badWorkRests: 'Work and rest like 40/20 then 30/10', badCount: (low: number, high: number) => `A whole number from ${low} to ${high}`,
  zoomIn: 'Closer', zoomOut: 'Further', zoomFit: 'Whole score', terrain: 'Terrain', readingsLabel: 'Ways to read this score', aboutReps: (reps: number) => `about ${reps} reps`, becomes: (field: string, length: string) => `${field} becomes ${length}`,
  stale: 'Changed in another tab', staleText: 'This score was saved somewhere else after you opened it here. Which one should stay?',
  keepMine: 'Keep what I have here', takeTheirs: 'Take the other one',
  tooLong: 'Shorten the score to go on: the picture and the sums need it below 24 hours and 50,000 intervals.',
  tableNote: 'Rows one by one. Edit them in the running sheet.',
  findings: {
    heading: 'Findings', none: 'Nothing stands in the way.', nothingYet: 'Findings appear here as soon as there is something to judge.', severities: { error: 'Will not work', warning: 'Will go wrong for some', note: 'Worth a thought' },
    dismiss: 'Set aside', reason: 'Why it may stay', save: 'Set it aside', dismissed: (count: number) => `${count} set aside`, restore: 'Bring back', go: 'Show where', needs: 'Seconds that things take', more: (count: number) => `${count} more`,
  },
  needs: { wordsPerSecond: 'Words a second, heard or read', standToFloor: 'From standing to the floor', floorToStand: 'From the floor to standing', kneelChange: 'To and from kneeling', rollOver: 'Turning over', gearChange: 'Changing gear', sideChange: 'Changing side', countIn: 'Count-in' },
  needsHint: 'The judgement of rests adds these up. The usual numbers are rules of thumb; put in your own.', needsUsual: 'Back to the usual',
  sheet: {
    columns: { number: '#', start: 'Start', end: 'End', length: 'Length', counters: 'Counters', label: 'What', side: 'Side', gear: 'Gear', cue: 'Cue words' },
    order: 'Order', empty: 'No intervals yet.', chosen: (count: number) => `${count} chosen`, setLength: 'Length of all', setSides: 'Sides of all', rename: 'Move for all', remove: 'Remove moves', copy: 'Copy', clear: 'Choose none', copied: (count: number) => `${count} ${count === 1 ? 'row' : 'rows'} copied.`, pasted: (count: number) => `${count} ${count === 1 ? 'row' : 'rows'} put in as a free list.`, badPaste: 'The clipboard holds no table: ', fixed: 'decided by other numbers',
  },
  shorthand: { label: 'The score as typed words', problems: (count: number) => (count === 1 ? '1 place not understood' : `${count} places not understood`), fine: 'All understood', next: 'Go to it', help: 'A line for a section, then its moves: circuit Main: 3 rounds, 40 on, 20 off. Ctrl Space offers what fits.' },
  balance: { heading: 'Balance', blocks: 'Work and rest by block', postures: 'Posture', muscles: 'Muscles', sides: 'Left and right', impacts: 'Impact', effort: 'Effort over time', gear: 'Gear', real: 'real work', longest: 'longest interval', left: 'left', right: 'right', other: 'talk and lead-in', none: 'No work yet, so there is nothing to weigh.', noGear: 'no gear', muscleNote: 'A move counts for each of its muscles.' },
  solve: { heading: 'Start from the promise', hint: 'Say how long the section may take; Jivet finds rounds, work and rest that come to it.', minutes: 'Minutes for this section', format: 'Format', moves: 'Moves', find: 'Find', take: 'Take this', exact: 'exactly', off: (by: string) => by, none: 'Nothing comes near. Try more minutes or fewer moves.', columns: ['Times', 'Work', 'Rest', 'Sum', 'Off'], setPromise: 'Promise this to viewers as well' },
  pastePlan: { heading: 'Paste a plan', hint: 'As you would type it in a description. What is not understood is kept and marked.', placeholder: '3 rounds: 40s lantern reach / 20s rest, 40s jug lift / 20s rest', read: 'Understood as', unread: (count: number) => (count === 1 ? '1 line not understood; it is kept in the shorthand, marked with ?' : `${count} lines not understood; they are kept in the shorthand, marked with ?`), add: 'Add to the score', replace: 'Replace the score' },
  rules: {
    heading: 'Words and rules', hint: 'What you call things, how words are read, and where things stand.', vocabulary: 'Your words', one: 'one', many: 'many', counted: { round: 'Round', set: 'Set', station: 'Station', block: 'Block' }, usual: 'each format\'s own', schools: 'Words that people read differently',
    demos: 'Moves are shown', demoPlaces: { none: 'not apart', upFront: 'all at the start', beforeBlocks: 'before each block', inRests: 'inside the rests' }, eachDemo: 'Each takes about', count: 'Countdown', counts: { down: 'down to the change', up: 'up from the start' }, caution: 'Cautions stand', cautions: { both: 'on a card and in the description', card: 'on a card', description: 'in the description', none: 'nowhere' }, because: 'Default: ',
  },
  beatPlanner: { heading: 'On the beat', hint: 'Tempos at which the lengths of this score are whole bars.', beats: 'Beats in a bar', wanted: 'Wanted tempo', perRep: 'Beats a rep', onBeat: 'Lengths that have to be on the beat', noneChosen: 'Choose a length that has to be on the beat.', tempo: 'Tempo', bars: 'Bars', reps: 'Reps', none: 'No tempo from 80 to 180 makes all of them whole bars.', change: 'To fit the wanted tempo', fits: 'fits', becomes: (length: string, by: string) => `${length} (${by})`, noLengths: 'There is no work with a fixed length yet.', apply: 'Use these lengths' },
  moves: {
    heading: 'Moves', way: 'Moves', search: 'Search by name, cue, muscle, gear or tag', all: 'all', add: 'New move', none: 'No move is like that.', count: (shown: number, all: number) => `${shown} of ${all}`, import: 'Bring in', exportCsv: 'Save as CSV', exportJson: 'Save as JSON', ownOnly: 'my own', shipped: 'ships with Jivet', ownMark: 'own', save: 'Save', cancel: 'Leave as it was', remove: 'Remove', backToShipped: 'Back to what ships',
    fields: { name: 'Name', short: 'Short name', cue: 'Cue words', posture: 'Posture', muscles: 'Muscles', impact: 'Impact', effort: 'Effort', sideRule: 'Sides', gear: 'Gear', easier: 'Easier', harder: 'Harder', caution: 'Caution', secondsPerRep: 'Seconds a rep', tags: 'Tags' },
    listHint: 'with commas between', usedIn: (count: number) => (count === 0 ? 'Not used in any workout.' : count === 1 ? 'Used in 1 workout:' : `Used in ${count} workouts:`), published: 'published', keepPublished: 'Published workouts keep the old text', imported: (count: number) => `${count} ${count === 1 ? 'move' : 'moves'} taken in.`, refused: (count: number) => `${count} not taken:`, nameNeeded: 'A name is needed.', nameTaken: 'Another move has that name.', failed: 'That did not work: ', badSeconds: 'A number from 0.2 to 120', choose: 'Choose a move to see it, or make a new one.', cautionNote: 'Jivet is no medical device. Cautions are the usual ones; local rules and licensed advice come first.',
  },
} as const
