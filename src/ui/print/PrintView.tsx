// For paper: the running sheet on one page, or a wall board with large type, a page for each block.
import type { ReactNode } from 'react'
import { tryExpand } from '@/core/expand/expand'
import { withRepeats } from '@/core/score/again'
import { castOf } from '@/core/score/cast'
import { describeSection } from '@/core/score/formats'
import { weightText } from '@/core/score/formats/station'
import { aroundOf, type Score } from '@/core/score/score'
import type { Segment } from '@/core/score/segment'
import { capital } from '@/core/score/vocabulary'
import { formatClock, formatLength } from '@/core/time/clock'
import { descriptionTexts } from '@/core/words/en/description'
import { viewerTexts } from '@/core/words/en/viewers'
import { countersOf, nameOf, repsOf } from '@/core/words/en/names'
import { problemSentence } from '@/core/words/en/problems'
import { texts } from '@/core/words/en/screens'
import { PrintButton } from './PrintButton'

export function PrintView({ score, as }: { score: Score; as: 'sheet' | 'board' }): ReactNode {
  const { expansion, problem } = tryExpand(score)
  if (!expansion)
    return (
      <main id="content" tabIndex={-1} className="p-8">
        {problemSentence(problem)}
      </main>
    )
  const { segments, totalMs, workMs, estimated, minMs, maxMs } = expansion
  return (
    <main id="content" tabIndex={-1} className="paper flex-1 px-8 py-6">
      <div className="flex items-baseline gap-6 border-b-4 border-ink pb-1">
        <h1 className="text-4xl">{score.title || texts.score.untitled}</h1>
        <p className="tabular-nums">
          {estimated ? `${texts.score.about} ` : ''}
          {formatClock(totalMs)}
          {estimated &&
            ` (${maxMs === null ? texts.score.atLeast(formatClock(minMs)) : texts.score.between(formatClock(minMs), formatClock(maxMs))})`}
          , {texts.score.work} {formatClock(workMs)}
        </p>
        <PrintButton />
      </div>
      {as === 'sheet' ? (
        <SheetOnPaper segments={segments} score={score} />
      ) : (
        <Boards score={score} segments={segments} />
      )}
      <p className="pt-3 text-[12px]">{texts.ship.cautionText}</p>
    </main>
  )
}

/** "10-20" where only the bounds are known, "~30" for a guess. */
function shownLength({ pace, minMs, maxMs, durationMs, estimated }: Segment): string {
  if (pace === 'range' && maxMs !== null) return `${formatLength(minMs)}-${formatLength(maxMs)}`
  return `${estimated ? '~' : ''}${formatLength(durationMs)}`
}

const loadOf = ({ weight }: Segment): string[] => (weight ? [weightText(weight)] : [])

/** As many columns and as small a type as one page asks for. */
function SheetOnPaper({ segments, score }: { segments: readonly Segment[]; score: Score }): ReactNode {
  const columns = segments.length > 220 ? 4 : segments.length > 110 ? 3 : segments.length > 45 ? 2 : 1
  const size = segments.length > 360 ? 6 : segments.length > 220 ? 7.5 : segments.length > 110 ? 9 : 12
  const cast = castOf(score.moves)
  return (
    <ol className="tabular-nums" style={{ columnCount: columns, columnGap: 28, fontSize: size, lineHeight: 1.35 }}>
      {segments.map((segment, index) => (
        <li key={segment.id} className="flex gap-[0.8em] border-b border-rule" style={{ breakInside: 'avoid' }}>
          <span className="w-[4em] shrink-0 text-right">{formatClock(segment.startMs)}</span>
          <span className="w-[3.5em] shrink-0 text-right">{shownLength(segment)}</span>
          <span className={segment.kind === 'work' ? 'font-bold' : ''}>
            {segments[index - 1]?.sectionKey === segment.sectionKey || segment.section === nameOf(segment)
              ? ''
              : `${segment.section}: `}
            {nameOf(segment)}
            {repsOf(segment)}
          </span>
          {columns < 3 && (
            <span className="ml-auto truncate text-right">
              {[...countersOf(segment), ...loadOf(segment), ...segment.moves.flatMap((name) => cast(name).gear)].join(
                ', ',
              )}
            </span>
          )}
        </li>
      ))}
    </ol>
  )
}

/** How the sides of a move are taken in all its intervals. */
function sidesOf(works: readonly Segment[]): string {
  const sides = new Set(works.map(({ side }) => side))
  if (sides.has('switch') || (sides.has('left') && sides.has('right'))) return descriptionTexts.leftAndRight
  if (sides.has('both')) return viewerTexts.both.toLowerCase()
  return sides.has('left') ? 'left' : sides.has('right') ? 'right' : ''
}

function Boards({ score, segments }: { score: Score; segments: readonly Segment[] }): ReactNode {
  const cast = castOf(score.moves)
  let block = 0
  return withRepeats(score).sections.map((section, index) => {
    const works = segments.filter((segment) => segment.sectionKey === section.key && segment.kind === 'work')
    if (!works.length) return null
    const lines = new Map<string, Segment>()
    for (const segment of works) if (!lines.has(segment.label)) lines.set(segment.label, segment)
    const shown = [...lines.values()]
    block++
    const around = aroundOf(score, index, cast)
    return (
      <section key={section.key} className="pt-4" style={{ breakBefore: block > 1 ? 'page' : 'auto' }}>
        <p className="text-2xl">
          {capital(around.words.block.one)} {block}
        </p>
        <h2 className="text-6xl">{section.name}</h2>
        <p className="pb-3 text-2xl">{describeSection(section, around)}</p>
        <ol className="flex flex-col">
          {shown.map((segment, at) => {
            const gear = segment.moves.flatMap((name) => cast(name).gear)
            return (
              <li
                key={segment.label}
                className="flex items-baseline gap-6 border-t-2 border-ink py-1 font-display"
                style={{ fontSize: shown.length > 12 ? 26 : shown.length > 7 ? 38 : 54, lineHeight: 1.15 }}
              >
                <span className="w-[1.4em] text-right">{at + 1}</span>
                <span className="flex-1">
                  {segment.label}
                  {repsOf(segment)}
                  <span className="pl-[1em] font-text" style={{ fontSize: '0.5em' }}>
                    {sidesOf(works.filter(({ label }) => label === segment.label))}
                  </span>
                </span>
                <span className="tabular-nums">{segment.pace === 'own' ? '' : shownLength(segment)}</span>
                <span className="w-[9em] truncate text-right font-text" style={{ fontSize: '0.5em' }}>
                  {[...loadOf(segment), ...gear].join(', ')}
                </span>
              </li>
            )
          })}
        </ol>
      </section>
    )
  })
}
