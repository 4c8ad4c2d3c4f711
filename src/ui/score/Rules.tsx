// Words and rules of a workout: vocabulary, the reading of disputed words, where moves are shown, how it counts,
// cautions.
'use client'
import type { ReactNode } from 'react'
import { USUAL_NEEDS, type Needs as NeedsTable } from '@/core/score/needs'
import { SCHOOLS } from '@/core/score/schools'
import { CAUTION_PLACES, COUNTED_LENGTHS, COUNTS, DEMO_PLACES, PROMISES, type Score } from '@/core/score/score'
import { COUNTED, PLAIN_WORDS } from '@/core/score/vocabulary'
import { Button } from '../parts/Button'
import { ChoiceField, LengthField, NameField, TypedField } from '../parts/fields'
import { Sheet } from '../parts/Sheet'
import type { Edit } from './edit'
import { scoreTexts } from '@/core/words/en/score'
import { clipped } from '@/core/text'

const words = scoreTexts.rules

interface Props {
  open: boolean
  onOpenChange: (open: boolean) => void
  score: Score
  edit: Edit
}

export function Rules({ open, onOpenChange, score, edit }: Props): ReactNode {
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title={words.heading} hint={words.hint} wide>
      <div className="grid gap-x-8 gap-y-6 md:grid-cols-2">
        <Vocabulary score={score} edit={edit} />
        <Manner score={score} edit={edit} />
        <Schools score={score} edit={edit} />
      </div>
    </Sheet>
  )
}

/** What this creator calls sections, rounds and stations. */
function Vocabulary({ score, edit }: Pick<Props, 'score' | 'edit'>): ReactNode {
  return (
    <section>
      <h3 className="pb-1 text-xl">{words.vocabulary}</h3>
      {COUNTED.map((counted) => {
        const pair = score.vocabulary[counted]
        const change = (part: 'one' | 'many', text: string): void =>
          edit((draft) => {
            const typed = clipped(text.trim(), 40)
            const held = draft.vocabulary[counted] ?? { ...PLAIN_WORDS[counted] }
            draft.vocabulary[counted] = typed
              ? {
                  ...held,
                  [part]: typed,
                  ...(part === 'one' && !draft.vocabulary[counted] ? { many: `${typed}s` } : {}),
                }
              : null
          })
        return (
          <div key={counted} className="flex items-end gap-3">
            <span className="w-20 pb-2 font-bold">{words.counted[counted]}</span>
            <NameField
              label={`${words.counted[counted]}, ${words.one}`}
              value={pair?.one ?? ''}
              placeholder={PLAIN_WORDS[counted].one}
              onChange={(text) => change('one', text)}
              className="w-28"
            />
            <NameField
              label={`${words.counted[counted]}, ${words.many}`}
              value={pair?.many ?? ''}
              placeholder={PLAIN_WORDS[counted].many}
              onChange={(text) => change('many', text)}
              className="w-28"
            />
          </div>
        )
      })}
    </section>
  )
}

/** Where moves are shown, how the overlay counts, and where cautions stand. */
function Manner({ score, edit }: Pick<Props, 'score' | 'edit'>): ReactNode {
  return (
    <section className="flex flex-col gap-2">
      <div className="flex gap-6">
        <ChoiceField
          label={words.demos}
          showLabel
          value={score.demos.place}
          options={pick(DEMO_PLACES, words.demoPlaces)}
          onChange={(place) =>
            edit((draft) => {
              draft.demos.place = place
            })
          }
        />
        <LengthField
          label={words.eachDemo}
          showLabel
          value={score.demos.eachMs}
          onChange={(ms) =>
            edit((draft) => {
              draft.demos.eachMs = ms
            })
          }
        />
      </div>
      <ChoiceField
        label={words.count}
        showLabel
        value={score.count}
        options={pick(COUNTS, words.counts)}
        onChange={(count) =>
          edit((draft) => {
            draft.count = count
          })
        }
      />
      <ChoiceField
        label={words.countOf}
        showLabel
        value={score.countOf}
        options={pick(COUNTED_LENGTHS, words.countedLengths)}
        onChange={(countOf) =>
          edit((draft) => {
            draft.countOf = countOf
          })
        }
      />
      <ChoiceField
        label={words.promiseOf}
        showLabel
        value={score.promiseOf}
        options={pick(PROMISES, words.promises)}
        onChange={(promiseOf) =>
          edit((draft) => {
            draft.promiseOf = promiseOf
          })
        }
      />
      <ChoiceField
        label={words.caution}
        showLabel
        value={score.caution}
        options={pick(CAUTION_PLACES, words.cautions)}
        onChange={(caution) =>
          edit((draft) => {
            draft.caution = caution
          })
        }
      />
      <Series score={score} edit={edit} />
    </section>
  )
}

/** What it is part of, and what comes next in it. */
function Series({ score, edit }: Pick<Props, 'score' | 'edit'>): ReactNode {
  return (
    <>
      <NameField
        label={words.series}
        showLabel
        value={score.series.name}
        onChange={(text) =>
          edit((draft) => {
            draft.series.name = text.trim()
          })
        }
      />
      <NameField
        label={words.seriesNext}
        showLabel
        value={score.series.next}
        placeholder={words.seriesNothing}
        onChange={(text) =>
          edit((draft) => {
            draft.series.next = text.trim()
          })
        }
      />
    </>
  )
}

/** Words that are read in more than one way, and the reading chosen. */
function Schools({ score, edit }: Pick<Props, 'score' | 'edit'>): ReactNode {
  return (
    <section className="md:col-span-2">
      <h3 className="pb-1 text-xl">{words.schools}</h3>
      {(Object.keys(SCHOOLS) as (keyof typeof SCHOOLS)[]).map((word) => (
        <fieldset key={word} className="border-t border-rule py-2">
          <legend className="float-left w-24 font-bold">{SCHOOLS[word].word}</legend>
          <div className="ml-24 flex flex-col">
            {SCHOOLS[word].readings.map((one) => (
              <label key={one.reading} className="flex min-h-8 items-center gap-3">
                <input
                  type="radio"
                  name={word}
                  className="size-4.5 accent-[var(--ink)]"
                  checked={score.readings[word] === one.reading}
                  onChange={() =>
                    edit((draft) => {
                      Object.assign(draft.readings, { [word]: one.reading })
                    })
                  }
                />
                {one.meaning}
              </label>
            ))}
            <p className="text-[13.5px] text-quiet">
              {words.because}
              {SCHOOLS[word].why}.
            </p>
          </div>
        </fieldset>
      ))}
    </section>
  )
}

const pick = <T extends string>(names: readonly T[], shown: Record<T, string>): Record<T, string> =>
  Object.fromEntries(names.map((name) => [name, shown[name]])) as Record<T, string>

/** The table of needs that the judgement of rests adds up. */
export function Needs({ open, onOpenChange, score, edit }: Props): ReactNode {
  const changed = Object.keys(score.needs).length > 0
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title={scoreTexts.findings.needs} hint={scoreTexts.needsHint}>
      <div className="flex flex-col">
        {(Object.keys(USUAL_NEEDS) as (keyof NeedsTable)[]).map((need) => (
          <div key={need} className="flex items-center justify-between border-b border-rule">
            <span>{scoreTexts.needs[need]}</span>
            <TypedField
              label={scoreTexts.needs[need]}
              value={score.needs[need] ?? USUAL_NEEDS[need]}
              write={String}
              read={(text) =>
                /^\d{1,3}(?:[.,]\d+)?$/.test(text.trim()) &&
                Number(text.replace(',', '.')) <= (need === 'wordsPerSecond' ? 10 : 120) &&
                Number(text.replace(',', '.')) >= (need === 'wordsPerSecond' ? 0.5 : 0)
                  ? Number(text.replace(',', '.'))
                  : null
              }
              complaint={need === 'wordsPerSecond' ? '0.5 - 10' : '0 - 120'}
              onChange={(value) =>
                edit((draft) => {
                  draft.needs[need] = value
                })
              }
              className="w-18 text-right font-display text-xl"
            />
          </div>
        ))}
      </div>
      <div className="mt-4 flex justify-end">
        <Button
          disabled={!changed}
          onClick={() =>
            edit((draft) => {
              draft.needs = {}
            })
          }
        >
          {scoreTexts.needsUsual}
        </Button>
      </div>
    </Sheet>
  )
}
