// The score as typed words. The text is the creator's while it is typed in; when another reading changes the score, it is
// written anew, remarks and all. Reading it back happens after the keystroke, never in it.
'use client'
import { autocompletion, closeBrackets, closeBracketsKeymap, completionKeymap } from '@codemirror/autocomplete'
import { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands'
import { bracketMatching, HighlightStyle, LanguageSupport, LRLanguage, syntaxHighlighting } from '@codemirror/language'
import { lintGutter, linter, lintKeymap, type Diagnostic } from '@codemirror/lint'
import { EditorState } from '@codemirror/state'
import { EditorView, drawSelection, highlightActiveLine, keymap, lineNumbers } from '@codemirror/view'
import { styleTags, tags } from '@lezer/highlight'
import { useEffect, useRef, useState, type ReactNode } from 'react'
import type { Move } from '@/core/score/moves'
import type { Score } from '@/core/score/score'
import type { Segment } from '@/core/score/segment'
import { parser } from '@/core/shorthand/parser'
import { printShorthand } from '@/core/shorthand/print'
import { readShorthand, type ShorthandReading as Reading } from '@/core/shorthand/read'
import { Button } from '../parts/Button'
import { completeShorthand } from './completeShorthand'
import { scoreTexts } from './texts'

const words = scoreTexts.shorthand
/** Long enough not to read half a word, short enough to feel at once. */
const READ_AFTER_MS = 120

const language = LRLanguage.define({
  parser: parser.configure({
    props: [
      styleTags({
        'Heading/Word Heading/Number Heading/String': tags.heading,
        'Label/Word Label/String': tags.name,
        'Label/Number': tags.number,
        'Setting/Number': tags.number,
        'Setting/Word': tags.keyword,
        String: tags.string,
        Comment: tags.comment,
        Unread: tags.invalid,
        Title: tags.heading,
        Key: tags.meta,
        'Semicolon Plus Comma Colon Open Close': tags.punctuation,
      }),
    ],
  }),
  languageData: { commentTokens: { line: '#' }, closeBrackets: { brackets: ['(', '"'] } },
})
const colours = HighlightStyle.define([
  { tag: tags.heading, fontWeight: '700' },
  { tag: tags.number, color: 'var(--signal)' },
  { tag: tags.keyword, color: 'var(--quiet)' },
  { tag: tags.string, fontStyle: 'italic' },
  { tag: tags.comment, color: 'var(--quiet)', fontStyle: 'italic' },
  { tag: tags.invalid, color: 'var(--signal)', textDecoration: 'underline wavy' },
  { tag: tags.meta, color: 'var(--quiet)' },
])
const theme = EditorView.theme({
  '&': { backgroundColor: 'var(--pale)', color: 'var(--ink)', fontSize: '16px', minHeight: '340px' },
  '&.cm-focused': { outline: '3px solid var(--land)' },
  '.cm-content': {
    fontFamily: "'Hanken Grotesk', sans-serif",
    fontVariantNumeric: 'tabular-nums',
    padding: '12px 0',
    caretColor: 'var(--ink)',
  },
  '.cm-line': { padding: '0 14px' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)', borderLeftWidth: '2px' },
  '.cm-gutters': { backgroundColor: 'var(--pale)', color: 'var(--quiet)', border: 'none' },
  '.cm-activeLine, .cm-activeLineGutter': { backgroundColor: 'color-mix(in srgb, var(--land) 12%, transparent)' },
  '.cm-selectionBackground, &.cm-focused > .cm-scroller > .cm-selectionLayer .cm-selectionBackground': {
    backgroundColor: 'color-mix(in srgb, var(--land) 55%, transparent)',
  },
  '.cm-tooltip': {
    backgroundColor: 'var(--bar)',
    color: 'var(--on-bar)',
    border: 'none',
    borderTop: '5px solid var(--land)',
  },
  '.cm-tooltip-autocomplete ul li': { fontFamily: "'Hanken Grotesk', sans-serif", padding: '5px 10px !important' },
  '.cm-tooltip-autocomplete ul li[aria-selected]': { backgroundColor: 'var(--land)', color: '#10241e' },
  '.cm-completionDetail': { fontStyle: 'normal', opacity: '0.75' },
  '.cm-diagnostic': {
    padding: '6px 10px',
    borderLeftWidth: '6px',
    fontFamily: "'Hanken Grotesk', sans-serif",
    maxWidth: '520px',
  },
  '.cm-diagnosticAction': { backgroundColor: 'var(--land)', color: '#10241e', fontWeight: '700', padding: '3px 10px' },
  '.cm-lintRange-error, .cm-lintRange-warning': {
    backgroundImage: 'none',
    textDecoration: 'underline wavy var(--signal)',
    textUnderlineOffset: '4px',
  },
})

interface Props {
  score: Score
  library: readonly Move[]
  selected: Segment | null
  onSelect: (sectionKey: string, station: readonly (string | number)[] | null) => void
  /** Takes the score that the text means. */
  onRead: (score: Score) => void
}

export function ShorthandReading({ score, library, selected, onSelect, onRead }: Props): ReactNode {
  const home = useRef<HTMLDivElement>(null)
  const view = useRef<EditorView | null>(null)
  const latest = useRef({
    score,
    library,
    onSelect,
    onRead,
    reading: null as Reading | null,
    text: '',
    mine: null as Score | null,
    timer: undefined as ReturnType<typeof setTimeout> | undefined,
    writing: false,
  })
  const [problems, setProblems] = useState<Reading['problems']>([])
  useEffect(() => {
    Object.assign(latest.current, { score, library, onSelect, onRead })
  })

  useEffect(() => {
    const state = latest.current
    if (!home.current) return
    const read = (text: string): Reading => {
      const reading = readShorthand(text, state.score)
      Object.assign(state, { reading, text })
      setProblems(reading.problems)
      return reading
    }
    const takeText = (): void => {
      const text = view.current?.state.doc.toString() ?? ''
      const reading = read(text)
      state.mine = reading.score
      state.onRead(reading.score)
    }
    const first = printShorthand(state.score)
    view.current = new EditorView({
      parent: home.current,
      state: EditorState.create({
        doc: first,
        extensions: [
          lineNumbers(),
          history(),
          drawSelection(),
          highlightActiveLine(),
          bracketMatching(),
          closeBrackets(),
          lintGutter(),
          EditorView.lineWrapping,
          new LanguageSupport(language),
          syntaxHighlighting(colours),
          theme,
          EditorView.contentAttributes.of({ 'aria-label': words.label }),
          autocompletion({
            override: [(context) => completeShorthand(context, state.library)],
            activateOnTyping: true,
            icons: false,
            selectOnOpen: false,
          }),
          linter(
            (editor) => {
              const text = editor.state.doc.toString()
              return diagnosticsOf(
                state.reading && text === state.text ? state.reading : readShorthand(text, state.score),
              )
            },
            { delay: 250 },
          ),
          keymap.of([
            ...closeBracketsKeymap,
            ...defaultKeymap,
            ...historyKeymap,
            ...completionKeymap,
            ...lintKeymap,
            indentWithTab,
          ]),
          EditorView.updateListener.of((update) => {
            if (update.docChanged && !state.writing) {
              clearTimeout(state.timer)
              state.timer = setTimeout(takeText, READ_AFTER_MS)
            }
            if (update.selectionSet && !state.writing && update.view.hasFocus) {
              const at = update.state.selection.main.head
              const spans = (state.reading?.spans ?? []).filter((span) => span.from <= at && span.to >= at)
              const span = spans.at(-1)
              if (span) state.onSelect(span.sectionKey, span.station)
            }
          }),
        ],
      }),
    })
    read(first)
    return () => {
      // Words typed just before leaving are not lost.
      if (state.timer !== undefined) {
        clearTimeout(state.timer)
        takeText()
      }
      view.current?.destroy()
      view.current = null
    }
  }, [])

  // Another reading, or undo, has changed the score: the text is written anew.
  useEffect(() => {
    const state = latest.current,
      editor = view.current
    if (!editor) return
    if (
      state.mine &&
      JSON.stringify(state.mine.sections) === JSON.stringify(score.sections) &&
      state.mine.title === score.title &&
      state.mine.promiseMs === score.promiseMs
    )
      return
    const text = printShorthand(score)
    if (text === editor.state.doc.toString()) return
    clearTimeout(state.timer)
    state.timer = undefined
    state.writing = true
    const head = Math.min(editor.state.selection.main.head, text.length)
    editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: text }, selection: { anchor: head } })
    state.writing = false
    Object.assign(state, { reading: readShorthand(text, score), text })
    state.mine = null
  }, [score])

  // What is selected elsewhere comes into view here.
  useEffect(() => {
    const editor = view.current,
      station = selected?.origin?.station
    if (!editor || !selected || editor.hasFocus) return
    const spans = latest.current.reading?.spans ?? []
    const span =
      spans.find(
        (one) =>
          one.sectionKey === selected.sectionKey && JSON.stringify(one.station) === JSON.stringify(station ?? null),
      ) ?? spans.find((one) => one.sectionKey === selected.sectionKey)
    if (span && span.to <= editor.state.doc.length) {
      latest.current.writing = true
      editor.dispatch({
        selection: { anchor: span.from, head: span.to },
        effects: EditorView.scrollIntoView(span.from, { y: 'center' }),
      })
      latest.current.writing = false
    }
  }, [selected])

  const first = problems[0]
  return (
    <div>
      <div ref={home} className="shorthand" />
      <div className="flex items-center gap-4 pt-2" role="status">
        {first ? (
          <span className="font-bold text-signal">{words.problems(problems.length)}</span>
        ) : (
          <span className="text-quiet">{words.fine}</span>
        )}
        {first && (
          <Button
            weight="bare"
            onClick={() => {
              view.current?.dispatch({ selection: { anchor: first.from, head: first.to }, scrollIntoView: true })
              view.current?.focus()
            }}
          >
            {words.next}
          </Button>
        )}
        <span className="ml-auto text-right text-[13.5px] text-quiet">{words.help}</span>
      </div>
    </div>
  )
}

const diagnosticsOf = ({ problems }: Reading): Diagnostic[] =>
  problems.map(({ from, to, message, mend }) => ({
    from,
    to: Math.max(from, to),
    severity: 'error',
    message,
    actions: mend
      ? [
          {
            name: mend.label,
            apply: (editor) => editor.dispatch({ changes: { from: mend.from, to: mend.to, insert: mend.insert } }),
          },
        ]
      : [],
  }))
