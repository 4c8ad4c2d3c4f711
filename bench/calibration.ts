// What weights are worth: sessions of which only the evidence is made, matched, and held against their truth. Prints
// the table of core/align/calibration.ts, fitted on the first sessions, and what it says of others.
//   tsx bench/calibration.ts [sessions to fit] [sessions to check]
import { calibrated } from '../src/core/align/calibration'
import { decode } from '../src/core/align/decode'
import { SURE } from '../src/core/align/ties'
import { boundOf } from '../demo/takes/judge'
import { offBy } from '../demo/takes/play'
import { tell } from '../demo/takes/told'

interface Placed {
  kind: string
  mass: number
  right: boolean
}

/** Below this a change is not tied: what it is worth is not asked. */
const LEAST = 0.5

function placesIn(from: number, count: number): Placed[] {
  return Array.from({ length: count }, (_, index) => tell(from + index)).flatMap((told) =>
    decode(told.segments, { evidence: told.evidence, footageMs: told.played.footageMs }).posteriors.flatMap(
      ({ boundary, instants: [likeliest], evidence }): Placed[] => {
        if (!likeliest || !evidence.length || likeliest.mass < LEAST) return []
        const off = offBy(told.played, { ...boundary, footageMs: likeliest.footageMs })
        const right = off <= boundOf(evidence)
        return [{ kind: `${told.faults}, ${told.marker}`, mass: likeliest.mass, right }]
      },
    ),
  )
}

interface Pool {
  mass: number
  right: number
  count: number
}
const shareOf = ({ right, count }: Pool): number => right / count

/** Rising shares of what was right (isotonic regression: pools that fall are joined), in the order of their mass. */
function rising(places: readonly Placed[], size: number): Pool[] {
  const sorted = [...places].sort((one, other) => one.mass - other.mass)
  const pools: Pool[] = []
  for (let at = 0; at < sorted.length; at += size) {
    const held = sorted.slice(at, at + size)
    let pool: Pool = {
      mass: held.reduce((sum, { mass }) => sum + mass, 0),
      right: held.filter(({ right }) => right).length,
      count: held.length,
    }
    for (let last = pools.at(-1); last && shareOf(last) >= shareOf(pool); last = pools.at(-1)) {
      pools.pop()
      pool = { mass: pool.mass + last.mass, right: pool.right + last.right, count: pool.count + last.count }
    }
    pools.push(pool)
  }
  return pools.map((pool) => ({ ...pool, mass: pool.mass / pool.count }))
}

const [fit = 420, check = 210] = process.argv.slice(2).map(Number)
const POOL = 60
console.log('mass      right     of')
for (const { mass, right, count } of rising(placesIn(0, fit), POOL))
  console.log(`${mass.toFixed(4)}    ${(right / count).toFixed(3)}    ${count}`)

const checked = placesIn(fit, check)
console.log('\nof other sessions, sure: right, wrong')
for (const kind of [...new Set(checked.map((one) => one.kind))].sort()) {
  const sure = checked.filter((one) => one.kind === kind && calibrated(one.mass) >= SURE)
  console.log(
    `${kind.padEnd(30)} ${sure.filter(({ right }) => right).length}  ${sure.filter(({ right }) => !right).length}`,
  )
}
console.log('\nsaid      right     of')
for (const from of [0.5, 0.6, 0.7, 0.8, SURE]) {
  const held = checked.filter(({ mass }) => calibrated(mass) >= from && calibrated(mass) < from + 0.1)
  const said = held.reduce((sum, { mass }) => sum + calibrated(mass), 0) / held.length
  const right = held.filter((one) => one.right).length / held.length
  console.log(`${said.toFixed(3)}     ${right.toFixed(3)}     ${held.length}`)
}
