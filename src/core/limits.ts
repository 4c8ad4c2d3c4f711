// How much one workout may hold. The same numbers guard files, the command, the routes and the page.
export const MOST_SECTIONS = 500
export const MOST_STATIONS = 10_000
export const MOST_SEGMENTS = 50_000
/** One tie at most for each change: every start, and the end of the last. */
export const MOST_TIES = MOST_SEGMENTS + 1
