// What the score can be begun with, added to and printed as.
'use client'
import Link from 'next/link'
import {
  AudioWaveform,
  BookOpen,
  ClipboardPaste,
  FileDown,
  Library,
  Minus,
  Plus,
  Printer,
  Target,
  Timer,
} from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import type { ReactNode } from 'react'
import { mergeInto } from '@/core/score/merge'
import { shifted } from '@/core/score/versions'
import { SECOND, type Ms } from '@/core/units'
import { scoreTexts as words } from '@/core/words/en/score'
import { Button } from '../parts/Button'
import { MenuContent } from '../parts/MenuContent'
import { AddSection } from './AddSection'
import { sectionToAdd } from './newPart'
import type { Dialog } from './ScoreDialogs'
import type { ScoreEditing } from './useScoreEditing'

interface Props {
  id: string
  editing: ScoreEditing
  onOpen: (dialog: Dialog) => void
}

const STEP: Ms = 5 * SECOND
/** Frames that a new section may take until it is drawn. */
const PATIENCE = 60

/** Brings a section into sight and puts the cursor on its name. */
function focusSection(key: string, frames = PATIENCE): void {
  const card = document.querySelector(`[data-section="${CSS.escape(key)}"]`)
  const name = card?.querySelector('input')
  card?.scrollIntoView({ block: 'center' })
  if (name) name.focus()
  else if (frames) requestAnimationFrame(() => focusSection(key, frames - 1))
}

export function ScoreTools({ id, editing: { score, edit }, onOpen }: Props): ReactNode {
  const shift = (byMs: Ms): void => edit((draft) => mergeInto(draft, shifted(structuredClone(score), byMs, 'rests')))
  return (
    <div className="flex flex-wrap gap-2 px-6 pt-4 max-md:gap-1 max-md:px-3">
      <AddSection
        main={score.sections.length === 0}
        onAdd={(format) => {
          const section = sectionToAdd(score, format)
          edit((draft) => void draft.sections.push(section))
          focusSection(section.key)
        }}
      />
      <Button icon={<Target size={17} />} onClick={() => onOpen('solve')}>
        {words.fromPromise}
      </Button>
      <Button icon={<ClipboardPaste size={17} />} onClick={() => onOpen('paste')}>
        {words.paste}
      </Button>
      <Button weight="bare" icon={<BookOpen size={17} />} onClick={() => onOpen('rules')}>
        {words.wordsAndRules}
      </Button>
      <Button weight="bare" icon={<AudioWaveform size={17} />} onClick={() => onOpen('beat')}>
        {words.beat}
      </Button>
      {score.sections.length > 0 && (
        <>
          <Button weight="bare" icon={<Timer size={17} />} onClick={() => onOpen('length')}>
            {words.otherLength.open}
          </Button>
          <Button weight="bare" icon={<Minus size={17} />} onClick={() => shift(-STEP)}>
            {words.otherLength.restsShorter}
          </Button>
          <Button weight="bare" icon={<Plus size={17} />} onClick={() => shift(STEP)}>
            {words.otherLength.restsLonger}
          </Button>
        </>
      )}
      <PrintMenu id={id} />
      <a
        href={`/api/workouts/${id}/plan`}
        download
        className="inline-flex min-h-10 items-center gap-2 px-3 font-bold hover:bg-ink hover:text-paper"
      >
        <FileDown size={17} />
        {words.savePlan}
      </a>
      <Link
        href="/moves"
        className="inline-flex min-h-10 items-center gap-2 px-3 font-bold hover:bg-ink hover:text-paper"
      >
        <Library size={17} />
        {words.moves.way}
      </Link>
    </div>
  )
}

const PRINTS = [
  ['sheet', words.printSheet],
  ['board', words.printBoard],
] as const

function PrintMenu({ id }: { id: string }): ReactNode {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button weight="bare" icon={<Printer size={17} />}>
          {words.print}
        </Button>
      </DropdownMenu.Trigger>
      <MenuContent align="start">
        {PRINTS.map(([as, label]) => (
          <DropdownMenu.Item key={as} asChild>
            <a
              href={`/w/${id}/print?as=${as}`}
              target="_blank"
              rel="noreferrer"
              className="flex min-h-9 items-center px-3 outline-none data-[highlighted]:bg-ink data-[highlighted]:text-paper"
            >
              {label}
            </a>
          </DropdownMenu.Item>
        ))}
      </MenuContent>
    </DropdownMenu.Root>
  )
}
