// The editor of the shorthand: its language, colours and habits. What it is told of the score comes from the reading.
'use client'
import { autocompletion, closeBrackets, closeBracketsKeymap, completionKeymap } from '@codemirror/autocomplete'
import { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands'
import { bracketMatching, HighlightStyle, LanguageSupport, LRLanguage, syntaxHighlighting } from '@codemirror/language'
import { lintGutter, linter, lintKeymap, type Diagnostic } from '@codemirror/lint'
import type { Extension } from '@codemirror/state'
import { EditorView, drawSelection, highlightActiveLine, keymap, lineNumbers } from '@codemirror/view'
import { styleTags, tags } from '@lezer/highlight'
import type { Move } from '@/core/score/moves'
import { parser } from '@/core/shorthand/parser'
import type { ShorthandReading } from '@/core/shorthand/reading'
import { scoreTexts } from '@/core/words/en/score'
import { shorthandSentence } from '@/core/words/en/shorthand'
import { completeShorthand } from './completeShorthand'

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

interface Habits {
  library: () => readonly Move[]
  /** What a text means, for its marks. */
  reading: (text: string) => ShorthandReading
  onTyped: () => void
  /** @param at where in the text the writer stands. */
  onPlace: (at: number) => void
}

export const editorExtensions = ({ library, reading, onTyped, onPlace }: Habits): Extension[] => [
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
  EditorView.contentAttributes.of({ 'aria-label': scoreTexts.shorthand.label }),
  autocompletion({
    override: [(context) => completeShorthand(context, library())],
    activateOnTyping: true,
    icons: false,
    selectOnOpen: false,
  }),
  linter((editor) => diagnosticsOf(reading(editor.state.doc.toString())), { delay: 250 }),
  keymap.of([
    ...closeBracketsKeymap,
    ...defaultKeymap,
    ...historyKeymap,
    ...completionKeymap,
    ...lintKeymap,
    indentWithTab,
  ]),
  EditorView.updateListener.of((update) => {
    if (update.docChanged) onTyped()
    if (update.selectionSet && update.view.hasFocus) onPlace(update.state.selection.main.head)
  }),
]

const diagnosticsOf = ({ problems }: ShorthandReading): Diagnostic[] =>
  problems.map(({ from, to, code, values, mend }) => ({
    from,
    to: Math.max(from, to),
    severity: 'error',
    message: shorthandSentence({ code, values }),
    actions: mend
      ? [
          {
            name: mend.label,
            apply: (editor) => editor.dispatch({ changes: { from: mend.from, to: mend.to, insert: mend.insert } }),
          },
        ]
      : [],
  }))
