// The score: totals and terrain in sight, three readings of the same plan below, findings beside them.
'use client'
import { Tabs } from 'radix-ui'
import { useMemo, useState, type ReactNode } from 'react'
import { castOf } from '@/core/score/cast'
import type { Move } from '@/core/score/move'
import type { Score } from '@/core/score/score'
import type { Path } from '@/core/score/segment'
import type { Version } from '@/core/version'
import { problemSentence } from '@/core/words/en/problems'
import { scoreTexts as words } from '@/core/words/en/score'
import { MoveNames } from '../parts/MoveNames'
import { Balance } from './Balance'
import { SectionsContext } from './FieldOf'
import { Findings } from './Findings'
import { ScoreDialogs, type Dialog } from './ScoreDialogs'
import { ScoreHead } from './ScoreHead'
import { ScoreTools } from './ScoreTools'
import { Sections } from './Sections'
import { SheetReading } from './SheetReading'
import { ShorthandReading } from './ShorthandReading'
import { TerrainPanel } from './TerrainPanel'
import { useScoreEditing, type ScoreEditing } from './useScoreEditing'

const READINGS = ['sections', 'sheet', 'shorthand', 'balance'] as const
type Reading = (typeof READINGS)[number]

interface Props {
  id: string
  score: Score
  version: Version
  ownMoves: Move[]
}

export function ScoreView(props: Props): ReactNode {
  const editing = useScoreEditing(props)
  const { score, edit, expansion, problem, judgement, mend } = editing
  const [selected, setSelected] = useState<string | null>(null)
  const [dialog, setDialog] = useState<Dialog | null>(null)
  const cast = useMemo(() => castOf(score.moves), [score.moves])
  /**
   * Selects what a finding is about, and brings its section into sight; the sheet and the shorthand follow by
   * themselves.
   */
  const showWhere = (id: string): void => {
    setSelected(id)
    const key = expansion.segments.find((segment) => segment.id === id)?.sectionKey
    if (key === undefined) return
    document.querySelector(`[data-section="${CSS.escape(key)}"]`)?.scrollIntoView({ block: 'nearest' })
  }
  return (
    <main id="content" tabIndex={-1} className="flex flex-1 flex-col">
      <ScoreHead editing={editing} />
      {problem && (
        <p role="alert" className="bg-signal px-6 py-2 text-paper">
          {problemSentence(problem)} {words.tooLong}
        </p>
      )}
      <TerrainPanel
        expansion={expansion}
        selected={selected}
        onSelect={setSelected}
        onResize={editing.resize}
        cast={cast}
      />
      <ScoreTools id={props.id} editing={editing} onOpen={setDialog} />
      <div className="grid flex-1 grid-cols-[minmax(0,1fr)_330px] gap-7 px-6 pt-4 pb-8 max-lg:grid-cols-1 max-md:px-3">
        <Readings editing={editing} selected={selected} onSelect={setSelected} />
        <Findings
          judgement={judgement}
          edit={edit}
          onMend={mend}
          onSelect={showWhere}
          onNeeds={() => setDialog('needs')}
          onUnsure={() => setDialog('unsure')}
          onLength={() => setDialog('length')}
          empty={score.sections.length === 0}
        />
      </div>
      <ScoreDialogs editing={editing} open={dialog} onOpen={setDialog} />
    </main>
  )
}

/** What other sections can repeat; the same list while no name has changed. */
function useSectionNames({ sections }: Score): { key: string; name: string }[] {
  const told = JSON.stringify(
    sections.filter(({ format }) => format !== 'again').map(({ key, name }) => ({ key, name })),
  )
  return useMemo(() => JSON.parse(told) as { key: string; name: string }[], [told])
}

interface ReadingsProps {
  editing: ScoreEditing
  selected: string | null
  onSelect: (id: string) => void
}

function Readings({ editing, selected, onSelect }: ReadingsProps): ReactNode {
  const { score, edit, expansion, library } = editing
  const [reading, setReading] = useState<Reading>('sections')
  const byId = useMemo(() => new Map(expansion.segments.map((segment) => [segment.id, segment])), [expansion])
  const repeatable = useSectionNames(score)
  const chosen = selected === null ? null : (byId.get(selected) ?? null)
  const selectFromText = (sectionKey: string, station: Path | null): void => {
    const wanted = station ? JSON.stringify(station) : null
    const found = expansion.segments.find(
      (segment) =>
        segment.sectionKey === sectionKey && (wanted === null || JSON.stringify(segment.origin?.station) === wanted),
    )
    if (found) onSelect(found.id)
  }
  return (
    <Tabs.Root value={reading} onValueChange={(value) => setReading(value as Reading)} className="min-w-0">
      <Tabs.List className="mb-4 flex border-b-4 border-ink" aria-label={words.readingsLabel}>
        {READINGS.map((one) => (
          <Tabs.Trigger
            key={one}
            value={one}
            className="min-h-10 px-5 font-display text-xl hover:bg-ink/10 max-md:px-2.5 data-[state=active]:bg-ink data-[state=active]:text-paper"
          >
            {words.readings[one]}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value="sections" tabIndex={-1}>
        {!score.sections.length && <p className="pb-5 text-lg text-quiet">{words.empty}</p>}
        <SectionsContext value={repeatable}>
          <Sections score={score} edit={edit} expansion={expansion} selected={chosen} library={library} />
        </SectionsContext>
      </Tabs.Content>
      <Tabs.Content value="sheet" tabIndex={-1} className="overflow-x-auto">
        <MoveNames library={library}>
          <SheetReading score={score} expansion={expansion} edit={edit} selected={selected} onSelect={onSelect} />
        </MoveNames>
      </Tabs.Content>
      <Tabs.Content value="shorthand" tabIndex={-1}>
        <ShorthandReading
          score={score}
          library={library}
          selected={chosen}
          onSelect={selectFromText}
          onRead={editing.replace}
        />
      </Tabs.Content>
      <Tabs.Content value="balance" tabIndex={-1}>
        <Balance score={score} expansion={expansion} />
      </Tabs.Content>
    </Tabs.Root>
  )
}
