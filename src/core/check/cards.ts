// Cards that are wished for and have no talk to stand over.
import { asPlanned } from '../cut/cut'
import { cardsWithoutPlace } from '../look/cards'
import { newSection } from '../score/formats'
import { freshKey, type Score } from '../score/score'
import { finding, type Check } from './finding'

/** As long as a card stands. */
const TALK_MS = 12_000

export const checkCards: Check = ({ score, expansion }) =>
  cardsWithoutPlace(asPlanned(expansion.segments), score).map((card) =>
    finding('cards', {
      id: card,
      // Cautions that nobody reads are no cautions.
      severity: card === 'caution' ? 'warning' : 'note',
      fact: { code: card === 'caution' ? 'caution-card-nowhere' : 'end-card-nowhere' },
      mend: {
        fact: { code: card === 'caution' ? 'add-opening-talk' : 'add-closing-talk' },
        apply: (draft) => withTalk(draft, card),
      },
    }),
  )

/** Talk at that end, or the talk that is there made long enough. */
function withTalk(draft: Score, card: 'caution' | 'end'): void {
  const there = draft.sections.at(card === 'caution' ? 0 : -1)
  if (there?.format === 'talk' && !there.shows) {
    there.guessMs = Math.max(there.guessMs ?? 0, TALK_MS)
    return
  }
  const name = card === 'caution' ? 'Welcome' : 'Goodbye'
  const keys = draft.sections.map(({ key }) => key)
  const talk = { ...newSection('talk', freshKey(name, keys), name), guessMs: TALK_MS }
  if (card === 'caution') draft.sections.unshift(talk)
  else draft.sections.push(talk)
}
