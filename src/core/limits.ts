// How much one workout may hold. The same numbers guard files, the command, the routes and the page.
import { DAY, type Ms } from './units'

export const MOST_SECTIONS = 500
export const MOST_STATIONS = 10_000
export const MOST_SEGMENTS = 50_000
/** What a reel of any number of files may last: ties are kept as whole milliseconds below 2^31. */
export const LONGEST_REEL_MS: Ms = 20 * DAY
/** One tie at most for each change: every start, and the end of the last. */
export const MOST_TIES = MOST_SEGMENTS + 1
