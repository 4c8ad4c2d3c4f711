// What the shorthand offers while it is typed: heads at the start of a line, settings after the colon, moves below.
import type { Completion, CompletionContext, CompletionResult } from '@codemirror/autocomplete'
import { notationOf } from '@/core/score/formats'
import type { Move } from '@/core/score/moves'
import { ALL_HEADS, HEADS } from '@/core/shorthand/read'
import { exampleOf, spaced } from '@/core/shorthand/settings'
import { SCORE_FIELDS, STATION_FIELDS } from '@/core/shorthand/terms'
import { scoreTexts as words } from './texts'

export function completeShorthand(context: CompletionContext, library: readonly Move[]): CompletionResult | null {
  const line = context.state.doc.lineAt(context.pos)
  const before = line.text.slice(0, context.pos - line.from)
  if (/^\s*[#?]/.test(before)) return null
  const bracket = before.lastIndexOf('(') > before.lastIndexOf(')')
  const header = /^\s*([\w-]+)[^:]*:/.exec(before)
  const start = Math.max(before.lastIndexOf(','), before.lastIndexOf('('), before.lastIndexOf(':'), before.lastIndexOf(';'), before.lastIndexOf('+'))
  const typed = before.slice(start + 1)
  const from = context.pos - typed.trimStart().length
  if (bracket) return result(from, settings(STATION_FIELDS))
  if (header) {
    const format = HEADS.get(header[1] ?? '')
    return result(from, settings(format ? notationOf(format).fields : SCORE_FIELDS))
  }
  if (!typed.trim() && !context.explicit) return null
  const heads: Completion[] = /^\S*$/.test(before) ? ALL_HEADS.map((head) => {
    const format = HEADS.get(head)
    return { label: head, apply: format ? `${head} ` : head, detail: format ? `  ${words.formats[format][1]}` : '', boost: 5 }
  }) : []
  const word = from + (/^\d+\s+/.exec(typed.trimStart())?.[0].length ?? 0)
  return { from: word, options: [...heads, ...library.map((move) => ({ label: move.name, detail: `  ${words.postures[move.posture]}${move.gear.length ? `, ${move.gear.join(', ')}` : ''}` }))], validFor: /^[\p{L}\p{N}' -]*$/u }
}

const result = (from: number, options: Completion[]): CompletionResult => ({ from, options, validFor: /^[\w: ]*$/ })

const settings = (fields: typeof SCORE_FIELDS): Completion[] => fields.flatMap((field): Completion[] =>
  (field.kind === 'choice' ? field.options.map((option) => ({ label: `${field.word} ${spaced(option)}` })) : [{ label: exampleOf(field), detail: `  ${words.fields[field.field] ?? ''}` }]))
