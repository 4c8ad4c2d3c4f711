// What a block of a typed plan says, with every number asked for by name. Whoever takes a number says so, and it counts
// as used; what nobody takes stays marked.
import type { Between, Fact, FactOf } from './facts'
import { mark, type Block, type Item } from './block'
import type { Token } from './tokens'

export interface Amount {
  low: number
  high: number
}

export class Settled {
  /** @param inherited settings typed before the first block, for all of them. */
  constructor(
    readonly block: Block,
    private readonly inherited: readonly Fact[],
  ) {}

  get items(): readonly Item[] {
    return this.block.items
  }

  /** Its own facts of a kind, or else those of the whole plan. */
  all<K extends Fact['kind']>(kind: K): FactOf<K>[] {
    const of = (facts: readonly Fact[]): FactOf<K>[] => facts.filter((fact): fact is FactOf<K> => fact.kind === kind)
    const own = of(this.block.facts)
    return own.length ? own : of(this.inherited)
  }

  has(kind: Fact['kind']): boolean {
    return this.all(kind).length > 0
  }

  ownHas(kind: Fact['kind']): boolean {
    return this.block.facts.some((fact) => fact.kind === kind)
  }

  /** Takes the first of a kind. */
  amount(kind: 'work' | 'rest' | 'step' | 'start' | 'up' | 'down' | 'slot', as: string = kind): Amount | null {
    const [fact] = this.all(kind)
    if (!fact) return null
    mark(fact.tokens, 'used', as)
    return fact
  }

  /** Takes the rest between works; none where it is said that there is none. */
  rest(): Amount | null {
    if (this.has('noRest')) {
      for (const fact of this.all('noRest')) mark(fact.tokens, 'used', 'rest')
      return { low: 0, high: 0 }
    }
    return this.amount('rest')
  }

  between(...what: Between[]): Amount | null {
    const own = this.block.facts.filter((fact) => fact.kind === 'between')
    // What is said once for the whole plan of breaks between blocks is no break within one.
    const shared = this.inherited.filter(
      (fact) => fact.kind === 'between' && fact.what !== 'block' && fact.what !== 'unsaid',
    )
    const fact = [...own, ...shared].find((one) => one.kind === 'between' && what.includes(one.what))
    if (fact?.kind !== 'between') return null
    mark(fact.tokens, 'used', 'between')
    return fact
  }

  rounds(): FactOf<'rounds'> | null {
    const [fact] = this.all('rounds')
    if (!fact) return null
    mark(fact.tokens, 'used', 'rounds')
    return fact
  }

  /** Says that a fact decided something, though its number stands nowhere. */
  heed(kind: Fact['kind']): void {
    for (const fact of this.all(kind)) mark(fact.tokens, 'used', kind)
  }

  /** The total that the block states. */
  get total(): Token | null {
    return this.block.totals[0] ?? null
  }

  takeTotal(as: string): number | null {
    const { total } = this
    if (!total) return null
    mark([total], 'used', as)
    return total.low
  }
}
