// The names of all formats, in the order in which they are offered.
export const FORMAT_NAMES = [
  'circuit', 'byStation', 'pairs', 'burst', 'straight', 'ladder', 'slot', 'table', 'growingBreak', 'compound', 'uneven', 'buyIn', 'couplet',
  'minuteReps', 'minuteTime', 'pyramid', 'sets', 'finisher', 'warmUp', 'coolDown', 'list', 'talk', 'break',
] as const
export type FormatName = (typeof FORMAT_NAMES)[number]
