// All cue rules, by name. Another rule is another file, its name in `RULES` and a line here.
import type { RuleName } from './cue'
import type { CueRule } from './place'
import { block } from './rules/block'
import { countIn } from './rules/countIn'
import { easier } from './rules/easier'
import { end } from './rules/end'
import { go } from './rules/go'
import { halfway } from './rules/halfway'
import { last } from './rules/last'
import { minute } from './rules/minute'
import { next } from './rules/next'
import { reps } from './rules/reps'
import { rest } from './rules/rest'
import { switchSides } from './rules/switch'
import { ten } from './rules/ten'
import { water } from './rules/water'

export const CUE_RULES: Record<RuleName, CueRule> = {
  ...{ countIn, go, rest, end, switch: switchSides, halfway, last, ten },
  ...{ next, block, reps, minute, easier, water },
}
