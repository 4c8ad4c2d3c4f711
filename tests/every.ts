// `npm test` has half an hour. What tests of another kind hold as well, or what differs only in a number, is tested
// where JIVET_EVERY=1 asks for it.
export const EVERY = Boolean(process.env.JIVET_EVERY)

/** @returns what was given where everything is tested, otherwise nothing. */
export const alsoEvery = <const One>(...ones: One[]): One[] => (EVERY ? ones : [])
