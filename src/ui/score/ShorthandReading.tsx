// The score as typed words. The text is the creator's while it is typed in; when another reading changes the score, it
// is written anew, remarks and all. Reading it back happens after the keystroke, never in it.
'use client'
import { EditorState } from '@codemirror/state'
import { EditorView } from '@codemirror/view'
import { useEffect, useRef, useState, type ReactNode, type RefObject } from 'react'
import type { Move } from '@/core/score/moves'
import type { Score } from '@/core/score/score'
import type { Segment } from '@/core/score/segment'
import { printShorthand } from '@/core/shorthand/print'
import { readShorthand } from '@/core/shorthand/read'
import type { ShorthandReading as Reading } from '@/core/shorthand/reading'
import { scoreTexts } from '@/core/words/en/score'
import { Button } from '../parts/Button'
import { editorExtensions } from './shorthandEditor'

const words = scoreTexts.shorthand
/** Long enough not to read half a word, short enough to feel at once. */
const READ_AFTER_MS = 120

interface Props {
  score: Score
  library: readonly Move[]
  selected: Segment | null
  onSelect: (sectionKey: string, station: readonly (string | number)[] | null) => void
  /** Takes the score that the text means. */
  onRead: (score: Score) => void
}

/** What the editor knows between renders. */
interface Held extends Pick<Props, 'score' | 'library' | 'onSelect' | 'onRead'> {
  reading: Reading | null
  /** The text that was read. */
  text: string
  /** The score that came of it; null where the text was written from a score. */
  mine: Score | null
  timer: ReturnType<typeof setTimeout> | undefined
  /** The text is being changed by us. */
  writing: boolean
}

export function ShorthandReading({ score, library, selected, onSelect, onRead }: Props): ReactNode {
  const home = useRef<HTMLDivElement>(null)
  const view = useRef<EditorView | null>(null)
  const held = useRef<Held>({
    ...{ score, library, onSelect, onRead },
    ...{ reading: null, text: '', mine: null, timer: undefined, writing: false },
  })
  const [problems, setProblems] = useState<Reading['problems']>([])
  useEffect(() => {
    Object.assign(held.current, { score, library, onSelect, onRead })
  })
  useEditor(home, view, held, setProblems)
  useRewriting(view, held, score)
  useSelectedInView(view, held, selected)

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

/** Makes the editor, and reads its text a moment after every keystroke. */
function useEditor(
  home: RefObject<HTMLDivElement | null>,
  viewRef: RefObject<EditorView | null>,
  heldRef: RefObject<Held>,
  onProblems: (problems: Reading['problems']) => void,
): void {
  useEffect(() => {
    const state = heldRef.current
    if (!home.current) return
    const read = (text: string): Reading => {
      const reading = readShorthand(text, state.score)
      Object.assign(state, { reading, text })
      onProblems(reading.problems)
      return reading
    }
    const takeText = (): void => {
      const text = viewRef.current?.state.doc.toString() ?? ''
      const reading = read(text)
      state.mine = reading.score
      state.onRead(reading.score)
    }
    const first = printShorthand(state.score)
    const extensions = editorExtensions({
      library: () => state.library,
      reading: (text) => (state.reading && text === state.text ? state.reading : readShorthand(text, state.score)),
      onTyped: () => {
        if (state.writing) return
        clearTimeout(state.timer)
        state.timer = setTimeout(takeText, READ_AFTER_MS)
      },
      onPlace: (at) => {
        const span = (state.reading?.spans ?? []).findLast((one) => one.from <= at && one.to >= at)
        if (span && !state.writing) state.onSelect(span.sectionKey, span.station)
      },
    })
    viewRef.current = new EditorView({ parent: home.current, state: EditorState.create({ doc: first, extensions }) })
    read(first)
    return () => {
      // Words typed just before leaving are not lost.
      if (state.timer !== undefined) {
        clearTimeout(state.timer)
        takeText()
      }
      viewRef.current?.destroy()
      viewRef.current = null
    }
  }, [home, viewRef, heldRef, onProblems])
}

/** Another reading, or undo, has changed the score: the text is written anew. */
function useRewriting(viewRef: RefObject<EditorView | null>, heldRef: RefObject<Held>, score: Score): void {
  useEffect(() => {
    const state = heldRef.current,
      editor = viewRef.current
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
  }, [viewRef, heldRef, score])
}

/** What is selected elsewhere comes into viewRef here. */
function useSelectedInView(
  viewRef: RefObject<EditorView | null>,
  heldRef: RefObject<Held>,
  selected: Segment | null,
): void {
  useEffect(() => {
    const editor = viewRef.current,
      station = selected?.origin?.station
    if (!editor || !selected || editor.hasFocus) return
    const spans = heldRef.current.reading?.spans ?? []
    const span =
      spans.find(
        (one) =>
          one.sectionKey === selected.sectionKey && JSON.stringify(one.station) === JSON.stringify(station ?? null),
      ) ?? spans.find((one) => one.sectionKey === selected.sectionKey)
    if (span && span.to <= editor.state.doc.length) {
      heldRef.current.writing = true
      editor.dispatch({
        selection: { anchor: span.from, head: span.to },
        effects: EditorView.scrollIntoView(span.from, { y: 'center' }),
      })
      heldRef.current.writing = false
    }
  }, [viewRef, heldRef, selected])
}
