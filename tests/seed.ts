// Property tests draw the same values in every run, so that a green tree stays green: docs/decisions/009.
// JIVET_SEED=any explores with new ones; a number runs with that seed.
import fc from 'fast-check'

const asked = process.env.JIVET_SEED ?? '1'
if (asked !== 'any') fc.configureGlobal({ ...fc.readConfigureGlobal(), seed: Number(asked) })
