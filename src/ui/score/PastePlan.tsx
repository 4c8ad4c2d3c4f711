// A plan pasted as it stands in a description: its words are shown with what became of each, beside the score that they
// make, and what could be meant in two ways is asked before anything is taken.
'use client'
import { useDeferredValue, useMemo, useState, type ReactNode } from 'react'
import { tryExpand } from '@/core/expand/expand'
import { Problem } from '@/core/problem'
import { linesOf, readTypedPlan, type PlanReading, type Question, type Token } from '@/core/read/typedPlan'
import { freshKey } from '@/core/score/score'
import { printShorthand } from '@/core/shorthand/print'
import { formatClock } from '@/core/time/clock'
import { choiceLabel, planTexts, questionAbout, whyChosen } from '@/core/words/en/plans'
import { problemSentence } from '@/core/words/en/problems'
import { scoreTexts } from '@/core/words/en/score'
import { Button } from '../parts/Button'
import { Sheet } from '../parts/Sheet'
import type { Edit } from './edit'

const words = scoreTexts.pastePlan

interface Props {
  open: boolean
  onOpenChange: (open: boolean) => void
  edit: Edit
  empty: boolean
}

export function PastePlan({ open, onOpenChange, edit, empty }: Props): ReactNode {
  const [text, setText] = usePastedText()
  const [answers, setAnswers] = useState<readonly (number | null)[]>([])
  const typed = useDeferredValue(text)
  const { reading, problem } = useMemo(() => tryRead(typed, answers), [typed, answers])
  const take = (whole: boolean): void => {
    if (!reading) return
    takePlan(edit, reading, whole)
    setText('')
    setAnswers([])
    onOpenChange(false)
  }
  const nothing = !reading || (!reading.score.sections.length && !reading.score.below.length)
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title={words.heading} hint={words.hint} wide>
      <textarea
        autoFocus
        aria-label={words.heading}
        value={text}
        onChange={(event) => {
          setText(event.target.value)
          setAnswers([])
        }}
        placeholder={words.placeholder}
        spellCheck={false}
        className="h-32 w-full resize-y border-2 border-ink bg-pale p-3 placeholder:text-quiet/80"
      />
      {problem && (
        <p role="alert" className="pt-3 font-bold text-signal">
          {problem}
        </p>
      )}
      {text.trim() && reading && (
        <>
          {reading.questions.map((question, index) => (
            <Asked
              key={index}
              question={question}
              onAnswer={(choice) => setAnswers(withAnswer(answers, index, choice))}
            />
          ))}
          <Understood reading={reading} text={typed} />
        </>
      )}
      <div className="sticky -bottom-7 -mx-7 mt-4 flex flex-wrap justify-end gap-3 border-t-2 border-rule bg-paper px-7 py-4">
        {!empty && (
          <Button disabled={nothing} onClick={() => take(true)}>
            {words.replace}
          </Button>
        )}
        <Button weight="main" disabled={nothing} onClick={() => take(false)}>
          {words.add}
        </Button>
      </div>
    </Sheet>
  )
}

const PASTED = 'jivet-pasted'

/** What stands in the box, kept in this browser until it is taken: whatever happens to the page, it is not lost. */
function usePastedText(): [text: string, change: (text: string) => void] {
  const [text, setText] = useState(() => (typeof window === 'undefined' ? '' : (keptText() ?? '')))
  const change = (next: string): void => {
    setText(next)
    try {
      if (next) localStorage.setItem(PASTED, next)
      else localStorage.removeItem(PASTED)
    } catch {
      /* a browser that keeps nothing */
    }
  }
  return [text, change]
}

function keptText(): string | null {
  try {
    return localStorage.getItem(PASTED)
  } catch {
    return null
  }
}

function tryRead(
  text: string,
  answers: readonly (number | null)[],
): { reading: PlanReading; problem: null } | { reading: null; problem: string } {
  try {
    return { reading: readTypedPlan(text, '', answers), problem: null }
  } catch (error) {
    if (!(error instanceof Problem)) console.error(error)
    return { reading: null, problem: error instanceof Problem ? problemSentence(error.fact) : words.unreadable }
  }
}

const withAnswer = (answers: readonly (number | null)[], index: number, choice: number): (number | null)[] =>
  Array.from({ length: Math.max(answers.length, index + 1) }, (_, at) =>
    at === index ? choice : (answers[at] ?? null),
  )

function takePlan(edit: Edit, { score: plan }: PlanReading, whole: boolean): void {
  edit((draft) => {
    if (whole) draft.sections = []
    const keys = draft.sections.map((section) => section.key)
    for (const section of plan.sections) {
      const key = freshKey(section.name, keys)
      keys.push(key)
      draft.sections.push({ ...section, key })
    }
    draft.below.push(...plan.above, ...plan.below)
    if (plan.title && (whole || !draft.title)) draft.title = plan.title
    if (plan.promiseMs !== null && (whole || draft.promiseMs === null)) draft.promiseMs = plan.promiseMs
  })
}

/** One question, with the sum that each answer makes. */
function Asked({ question, onAnswer }: { question: Question; onAnswer: (choice: number) => void }): ReactNode {
  return (
    <fieldset className="mt-4 border-l-8 border-land bg-pale px-4 py-3">
      <legend className="sr-only">{planTexts.asks}</legend>
      <p className="font-bold">
        {planTexts.asks} {questionAbout(question)}
      </p>
      <div className="mt-2 flex flex-wrap gap-x-6 gap-y-2">
        {question.choices.map((choice, index) => (
          <label key={index} className="flex min-h-8 cursor-pointer items-center gap-2">
            <input
              type="radio"
              name={`${question.about}/${question.moves.join()}`}
              checked={choice.chosen}
              onChange={() => onAnswer(index)}
              className="size-5 accent-ink"
            />
            <span>
              {choiceLabel(choice.label)}, <b className="tabular-nums">{formatClock(choice.totalMs)}</b>
            </span>
          </label>
        ))}
      </div>
      <p className="mt-1 text-sm text-quiet">{whyChosen(question)}</p>
    </fieldset>
  )
}

/** The words with their marks, and beside them the score. */
function Understood({ reading, text }: { reading: PlanReading; text: string }): ReactNode {
  const { score, tokens, unmet } = reading
  const shown = useMemo(() => printShorthand(score).replace(/^title ""\n/, ''), [score])
  const total = tryExpand(score).expansion
  const unread = score.below.filter((line) => line.startsWith('?')).length
  return (
    <>
      <div className="mt-4 grid gap-4 md:grid-cols-2">
        <section aria-label={planTexts.marks}>
          <h3 className="text-xl">{planTexts.marks}</h3>
          <MarkedText text={text} tokens={tokens} />
          <p className="mt-2 flex flex-wrap gap-x-4 text-sm">
            <span className="border-b-2 border-ink">{planTexts.fates.used}</span>
            <span className="text-quiet">{planTexts.fates.kept}</span>
            <span className="bg-signal px-1 text-paper">{planTexts.fates.unread}</span>
          </p>
        </section>
        <section aria-label={words.read}>
          <h3 className="text-xl">
            {words.read}
            {total && (
              <span className="pl-3 font-text text-base tabular-nums">
                {total.estimated ? `${scoreTexts.about} ` : ''}
                {formatClock(total.totalMs)}
              </span>
            )}
          </h3>
          <pre tabIndex={0} className="mt-1 max-h-44 overflow-auto bg-pale p-3 font-text whitespace-pre-wrap">
            {shown.split('\n').map((line, index) => (
              <span key={index} className={line.startsWith('?') ? 'block text-signal' : 'block'}>
                {line || ' '}
              </span>
            ))}
          </pre>
        </section>
      </div>
      {unmet && (
        <p className="pt-2 font-bold">{planTexts.unmet(formatClock(unmet.statedMs), formatClock(unmet.totalMs))}</p>
      )}
      {unread > 0 && <p className="pt-2 font-bold text-signal">{planTexts.unread(unread)}</p>}
    </>
  )
}

const FATES: Record<Token['fate'], string> = {
  used: 'border-b-2 border-ink',
  kept: 'text-quiet',
  unread: 'bg-signal px-0.5 text-paper',
}

function MarkedText({ text, tokens }: { text: string; tokens: readonly Token[] }): ReactNode {
  const lines = linesOf(text)
  const byLine = new Map<number, Token[]>()
  for (const token of tokens) byLine.set(token.line, [...(byLine.get(token.line) ?? []), token])
  return (
    <pre tabIndex={0} className="mt-1 max-h-44 overflow-auto bg-pale p-3 font-text whitespace-pre-wrap">
      {lines.map((line, index) => (
        <span key={index} className="block">
          {runsOf(line, byLine.get(index) ?? []).map(({ fate, said }, at) => (
            <span key={at} className={fate ? FATES[fate] : ''}>
              {said}
              {fate === 'unread' && <span className="sr-only"> ({planTexts.fates.unread})</span>}
            </span>
          ))}
          {line ? '' : ' '}
        </span>
      ))}
    </pre>
  )
}

/** Stretches of a line that share a fate, with the blanks between them. */
function runsOf(line: string, tokens: readonly Token[]): { fate: Token['fate'] | null; said: string }[] {
  const runs: { fate: Token['fate'] | null; said: string }[] = []
  let at = 0
  for (const { from, to, fate } of tokens) {
    if (to <= at) continue
    const last = runs.at(-1)
    const between = line.slice(at, from)
    if (last && last.fate === fate) last.said += between + line.slice(Math.max(at, from), to)
    else {
      if (between) runs.push({ fate: null, said: between })
      runs.push({ fate, said: line.slice(Math.max(at, from), to) })
    }
    at = to
  }
  if (at < line.length) runs.push({ fate: null, said: line.slice(at) })
  return runs
}
