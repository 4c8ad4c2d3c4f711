// What the shorthand offers while it is typed: heads at the start of a line, settings after the colon, moves below, and
// in brackets what a move of that section may carry.
import type { Completion, CompletionContext, CompletionResult } from '@codemirror/autocomplete'
import type { Text } from '@codemirror/state'
import { notationOf, type FormatName } from '@/core/score/formats'
import type { Move } from '@/core/score/moves'
import { USUAL_NEEDS, type Needs } from '@/core/score/needs'
import { COUNTED } from '@/core/score/vocabulary'
import { ALL_HEADS, HEADS } from '@/core/shorthand/read'
import { exampleOf, spaced } from '@/core/shorthand/settings'
import { MOVE_FIELDS, ROW_FIELDS, SCORE_FIELDS, STATION_FIELDS, type PlainHead } from '@/core/shorthand/terms'
import { scoreTexts as words } from '@/core/words/en/score'

export function completeShorthand(context: CompletionContext, library: readonly Move[]): CompletionResult | null {
  const { doc } = context.state
  const line = doc.lineAt(context.pos)
  const before = line.text.slice(0, context.pos - line.from)
  if (/^\s*[#?]/.test(before)) return null
  const start = Math.max(...[',', '(', ':', ';', '+'].map((mark) => before.lastIndexOf(mark)))
  const typed = before.slice(start + 1).trimStart()
  const from = context.pos - typed.length
  if (before.lastIndexOf('(') > before.lastIndexOf(')'))
    return settingsFrom(from, inBrackets(formatAbove(doc, line.number)))
  const header = /^\s*([\w-]+)[^:]*:/.exec(before)
  if (header) return settingsFrom(from, afterColon(header[1] ?? ''))
  if (!typed && !context.explicit) return null
  const afterReps = from + (/^\d+\s+/.exec(typed)?.[0].length ?? 0)
  return {
    from: afterReps,
    options: [...(/^\S*$/.test(before) ? heads() : []), ...library.map(moveOffered)],
    validFor: /^[\p{L}\p{N}' -]*$/u,
  }
}

const heads = (): Completion[] =>
  ALL_HEADS.map((head) => {
    const format = HEADS.get(head)
    return {
      label: head,
      apply: format ? `${head} ` : head,
      detail: format ? `  ${words.formats[format][1]}` : '',
      boost: 5,
    }
  })

const moveOffered = ({ name, posture, gear }: Move): Completion => ({
  label: name,
  detail: `  ${[words.postures[posture], ...gear].join(', ')}`,
})

function afterColon(head: string): Completion[] {
  const format = HEADS.get(head)
  if (format) return offered(notationOf(format).fields)
  switch (head as PlainHead) {
    case 'score':
      return offered(SCORE_FIELDS)
    case 'words':
      return COUNTED.map((one) => ({ label: `${one} "..." "..."` }))
    case 'needs':
      return (Object.keys(USUAL_NEEDS) as (keyof Needs)[]).map((need) => ({
        label: `${spaced(need)} ${USUAL_NEEDS[need]}`,
        detail: `  ${words.needs[need]}`,
      }))
    case 'move':
      return [
        ...offered(MOVE_FIELDS),
        ...['muscles back grip', 'gear "..."', 'tags "..."', '2.5 seconds per rep'].map((label) => ({ label })),
      ]
    case 'dismissed':
      return [{ label: 'reason "..."' }]
    default:
      return []
  }
}

function inBrackets(format: FormatName | null): Completion[] {
  if (format && notationOf(format).moves === 'rows')
    return [
      ...['35 work', '15 rest', '1:00 break', 'about 36 work', 'open talk'].map((label) => ({ label })),
      ...offered(ROW_FIELDS),
    ]
  const may = format ? (notationOf(format).perMove ?? []) : (['workMs', 'restMs', 'swaps'] as const)
  const has = (part: string): boolean => (may as readonly string[]).includes(part)
  return [
    ...offered(STATION_FIELDS.filter(({ field }) => !field.endsWith('Ms') || has(field))),
    ...(has('swaps') ? [{ label: 'from 2 ...', detail: `  ${words.swap}` }] : []),
  ]
}

/** The format of the section that a line of moves belongs to. */
function formatAbove(doc: Text, from: number): FormatName | null {
  for (let number = from; number >= 1; number--) {
    const head = /^\s*([\w-]+)[^#]*:/.exec(doc.line(number).text)?.[1]
    const format = head && HEADS.get(head)
    if (format) return format
  }
  return null
}

const settingsFrom = (from: number, options: Completion[]): CompletionResult => ({
  from,
  options,
  validFor: /^[\w: ]*$/,
})

const offered = (fields: typeof SCORE_FIELDS): Completion[] =>
  fields.flatMap((field): Completion[] =>
    field.kind === 'choice' || field.kind === 'optionalChoice'
      ? field.options.map((option) => ({ label: `${field.word} ${spaced(option)}` }))
      : [{ label: exampleOf(field), detail: `  ${words.fields[field.field] ?? ''}` }],
  )
