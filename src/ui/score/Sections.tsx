// The sections of a score in order: each with its numbers in a row and its moves below, whatever its format.
'use client'
import { memo, useState, type ReactNode } from 'react'
import { stationsOf } from '@/core/score/formats'
import type { Move } from '@/core/score/move'
import { followsAt, type Score } from '@/core/score/score'
import type { Expansion, Segment } from '@/core/score/segment'
import { InSight } from '../parts/InSight'
import { MoveNames } from '../parts/MoveNames'
import { moveWithin, SortableList, useGrip } from '../parts/sortable'
import type { Edit } from './edit'
import { SectionBody, type CardProps } from './SectionBody'
import { ROW_PX } from './Stations'

/** So many sections are drawn with the page; the rest when they come near the window. */
const FIRST_DRAWN = 6
/** About the height of a section without its moves, before it was drawn. */
const HEAD_PX = 235

interface ListProps {
  score: Score
  edit: Edit
  expansion: Expansion
  selected: Segment | null
  library: readonly Move[]
}

export function Sections({ score, edit, expansion, selected, library }: ListProps): ReactNode {
  const lengths = new Map<string, { ms: number; estimated: boolean }>()
  for (const { sectionKey, durationMs, estimated } of expansion.segments) {
    const sum = lengths.get(sectionKey) ?? { ms: 0, estimated: false }
    lengths.set(sectionKey, { ms: sum.ms + durationMs, estimated: sum.estimated || estimated })
  }
  return (
    <MoveNames library={library}>
      <SortableList
        keys={score.sections.map((section) => section.key)}
        onMove={(from, to) => edit((draft) => moveWithin(draft.sections, from, to))}
      >
        <ol className="flex flex-col gap-5">
          {score.sections.map((section, index) => (
            <SectionCard
              key={section.key}
              section={section}
              index={index}
              edit={edit}
              ms={lengths.get(section.key)?.ms ?? 0}
              estimated={lengths.get(section.key)?.estimated ?? false}
              moves={score.moves}
              vocabulary={score.vocabulary}
              follows={followsAt(score.sections, index)}
              selected={selected?.sectionKey === section.key ? selected : null}
              library={library}
            />
          ))}
        </ol>
      </SortableList>
    </MoveNames>
  )
}

/** Drawn anew only when its own section changes: a score may have hundreds. */
const SectionCard = memo(function SectionCard(card: CardProps): ReactNode {
  const { section, index } = card
  const { setNodeRef, style, grip } = useGrip(section.key)
  const [folded, setFolded] = useState(false)
  return (
    <li
      ref={setNodeRef}
      style={style}
      className="scroll-my-24 border-t-4 border-ink bg-pale"
      data-section={section.key}
    >
      <InSight
        heightPx={folded ? HEAD_PX / 4 : HEAD_PX + ROW_PX * stationsOf(section).length}
        first={index < FIRST_DRAWN}
      >
        <SectionBody {...card} grip={grip} folded={folded} setFolded={setFolded} />
      </InSight>
    </li>
  )
})
