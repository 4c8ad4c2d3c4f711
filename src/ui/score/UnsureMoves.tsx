// All moves of a score that are not in the library, in one place: what each is taken for and why, to be taken as shown,
// changed, or left.
'use client'
import { useMemo, useState, type ReactNode } from 'react'
import { castOf } from '@/core/score/cast'
import type { Move } from '@/core/score/moves'
import type { Reason } from '@/core/score/recognise'
import type { Score } from '@/core/score/score'
import { settle, unsureIn, type Unsure } from '@/core/score/unsure'
import { scoreTexts } from '@/core/words/en/score'
import { Button } from '../parts/Button'
import { MoveNames, useMoveOffers } from '../parts/MoveNames'
import { Sheet } from '../parts/Sheet'
import type { Edit } from './edit'

const words = scoreTexts.unsure

interface Props {
  open: boolean
  onOpenChange: (open: boolean) => void
  score: Score
  library: readonly Move[]
  edit: Edit
}

export function UnsureMoves({ open, onOpenChange, score, library, edit }: Props): ReactNode {
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title={words.heading} hint={words.hint} wide>
      {open && (
        <MoveNames library={library}>
          <Rows score={score} library={library} edit={edit} onDone={() => onOpenChange(false)} />
        </MoveNames>
      )}
    </Sheet>
  )
}

function Rows({
  score,
  library,
  edit,
  onDone,
}: Omit<Props, 'open' | 'onOpenChange'> & { onDone: () => void }): ReactNode {
  const unsure = useMemo(() => unsureIn(score), [score])
  const cast = useMemo(() => castOf(library), [library])
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({})
  const likeOf = (one: Unsure): string => typed[one.name] ?? one.like
  const wrong = (one: Unsure): boolean => likeOf(one).trim() !== '' && cast(likeOf(one)).sure !== 'known'
  const left = unsure.filter((one) => one.facts.sure === 'unknown' && !likeOf(one).trim()).length
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        if (unsure.some(wrong)) return
        edit((draft) => {
          for (const one of unsure) settle(draft, one, likeOf(one))
        })
        onDone()
      }}
    >
      <ul className="flex flex-col divide-y-2 divide-rule">
        {unsure.map((one, index) => (
          <li key={one.name} className="grid items-baseline gap-x-4 gap-y-1 py-2.5 sm:grid-cols-[1fr_1fr]">
            <div className="min-w-0">
              <p className="text-lg font-bold break-words">{one.name}</p>
              <p className="text-[13.5px] text-quiet">{reasons(one.facts.because)}</p>
            </div>
            <div className="min-w-0">
              <label className="flex items-baseline gap-2">
                <span className="text-[13px] whitespace-nowrap text-quiet">{words.takenFor}</span>
                <LikeField
                  one={one}
                  like={likeOf(one)}
                  isWrong={wrong(one)}
                  autoFocus={index === 0}
                  onChange={(like) => setTyped({ ...typed, [one.name]: like })}
                />
              </label>
              <p className={`pt-1 text-[13.5px] ${wrong(one) ? 'font-bold text-signal' : 'text-quiet'}`}>
                {wrong(one) ? words.notLike : factsOf(one, likeOf(one), cast)}
              </p>
            </div>
          </li>
        ))}
      </ul>
      <div className="sticky -bottom-7 -mx-7 flex flex-wrap items-center justify-end gap-4 border-t-2 border-rule bg-paper px-7 py-4">
        {left > 0 && <p className="text-quiet">{words.left(left)}</p>}
        <Button weight="main" type="submit">
          {words.accept}
        </Button>
      </div>
    </form>
  )
}

interface LikeProps {
  one: Unsure
  like: string
  isWrong: boolean
  autoFocus: boolean
  onChange: (like: string) => void
}

function LikeField({ one, like, isWrong, autoFocus, onChange }: LikeProps): ReactNode {
  const [typing, setTyping] = useState(false)
  const offers = useMoveOffers(true, typing ? like : null, (name) => {
    onChange(name)
    setTyping(false)
  })
  return (
    <span className="relative w-full">
      <input
        autoFocus={autoFocus}
        {...offers.aria}
        aria-label={`${one.name}: ${words.takenFor}`}
        aria-invalid={isWrong}
        autoComplete="off"
        value={like}
        placeholder={one.facts.sure === 'unknown' ? words.nobody : reasons(one.facts.because)}
        onChange={(event) => {
          setTyping(true)
          onChange(event.target.value)
        }}
        onBlur={() => setTyping(false)}
        onKeyDown={offers.onKey}
        className={`min-h-9 w-full min-w-0 border-b-2 bg-transparent px-1.5 hover:bg-pale focus:bg-pale ${isWrong ? 'border-signal' : 'border-rule focus:border-ink'}`}
      />
      {offers.list}
    </span>
  )
}

const reasons = (because: readonly Reason[]): string =>
  because
    .map((reason) => {
      switch (reason.code) {
        case 'head':
          return words.head(reason.move)
        case 'modifier':
          return words.modifier(reason.word)
        case 'combined':
          return words.combined(reason.moves)
      }
    })
    .join(', ')

/** Posture, impact and muscles that the name would have. */
function factsOf(one: Unsure, like: string, cast: ReturnType<typeof castOf>): string {
  const { posture, impact, muscles } = like.trim() && like !== one.like ? cast(like) : one.facts
  if (!posture || !impact) return scoreTexts.notKnown
  const { postures, impacts, muscles: names } = scoreTexts
  return [postures[posture], impacts[impact], ...muscles.map((muscle) => names[muscle])].filter(Boolean).join(', ')
}
