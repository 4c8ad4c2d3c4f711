// The footage beside the list of changes, and the two shores below: what is seen of `useStitching`.
'use client'
import { Ear, Pause, Play, Redo2, Undo2 } from 'lucide-react'
import { useRef, useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import { filmedInPart } from '@/core/align/story'
import type { Segment } from '@/core/score/segment'
import type { Mix } from '@/core/sound/mix'
import { texts } from '@/core/words/en/screens'
import type { ReelProgress } from '@/server/progress'
import type { Stitches } from '@/server/stitches'
import { Button, IconButton } from '../parts/Button'
import type { ReelFilm } from '../parts/ReelFilm'
import { filmFiles, ReelVideo } from '../parts/ReelVideo'
import { StaleDialog } from '../parts/StaleDialog'
import { useVideoClock } from '../parts/useVideoClock'
import { ChangeList } from './ChangeList'
import { ForgetMenu } from './ForgetMenu'
import { RanSheet } from './RanSheet'
import { useHeard } from './useHeard'
import { Shores } from './Shores'
import { SyncSummary } from './SyncSummary'
import { useKept } from '../parts/useKept'
import { useStitching, type Stitching as On } from './useStitching'
import { useSyncKeys } from './useSyncKeys'

const words = texts.sync

interface Props {
  workoutId: string
  segments: Segment[]
  reel: ReelProgress
  tied: Stitches
  /** How often captions were added. */
  captioned: number
  /** The changes are looked for without being asked to. */
  findsAtOnce: boolean
  /** Puts the sections into another order. @param sections keys of all. */
  onPlanAs: (sections: readonly string[]) => void
  /** How loud footage and cues are. */
  mix: Mix
  /** Ways to other footage, which may bring ties of their own. */
  ways: (takeOver: On['takeOver']) => ReactNode
}

export function Stitching({ workoutId, segments, reel: given, mix: keptMix, ways, ...looking }: Props): ReactNode {
  // Other files are another component; while they stay, all that is known of them does.
  const [reel] = useState(given)
  const film = useRef<ReelFilm>(null)
  const { clock, playing } = useVideoClock(film)
  const on = useStitching({ workoutId, segments, reel, film, clock, ...looking })
  useSyncKeys(on)
  const heard = useHeard(workoutId, on.looks)
  const [mix, change] = useKept(workoutId, 'mix', keptMix)
  const hushCues = (): void => {
    change({ cuesOn: false })
    toast(words.hushedCues)
  }
  const hasSound = reel.files.some(({ facts }) => facts?.audioCodec)
  return (
    <>
      <div className="flex flex-col gap-6 px-3 pt-3 pb-4 lg:h-[392px] lg:flex-row lg:px-6 lg:pt-5">
        <div className="flex shrink-0 flex-col lg:w-[560px]">
          <ReelVideo
            film={film}
            files={filmFiles(reel)}
            main={reel.files.length}
            className="aspect-video max-h-[300px] w-full bg-bar lg:aspect-auto lg:h-[300px]"
            onClick={on.toggle}
          />
          <div className="flex flex-wrap items-center gap-2 pt-3">
            <Button icon={playing ? <Pause size={18} /> : <Play size={18} />} onClick={on.toggle}>
              {playing ? words.pause : words.play}
            </Button>
            <Button weight="main" onClick={on.stitchHere}>
              {words.stitch}
            </Button>
            <Button weight="bare" aria-label={words.speed(on.speed)} onClick={on.nextSpeed}>
              {`${on.speed} x`}
            </Button>
            <span className="ml-auto flex">
              <IconButton label={texts.score.undo} disabled={!on.canUndo} onClick={on.undo}>
                <Undo2 size={18} />
              </IconButton>
              <IconButton label={texts.score.redo} disabled={!on.canRedo} onClick={on.redo}>
                <Redo2 size={18} />
              </IconButton>
            </span>
            {ways(on.takeOver)}
          </div>
        </div>
        <div className="flex h-[360px] min-w-0 flex-col max-sm:h-[620px] lg:h-auto lg:flex-1">
          <p className="pb-3 text-quiet sm:hidden">{words.onPhone}</p>
          <div className="flex flex-wrap items-start gap-x-5 gap-y-3 pb-3 lg:flex-nowrap">
            <SyncSummary
              changes={on.changes}
              summary={on.summary}
              story={on.story}
              inPart={filmedInPart(on.done.segments, on.footageMs)}
              asks={on.anyTied || on.looks > 0 || !hasSound}
              onShow={on.choose}
            />
            <Button
              weight={on.anyTied ? 'plain' : 'main'}
              className="shrink-0 lg:ml-auto"
              icon={<Ear size={18} />}
              disabled={on.hearing || !hasSound}
              onClick={() => on.findChanges()}
            >
              {hasSound ? (on.hearing ? words.hearing : words.hear) : words.noSound}
            </Button>
          </div>
          <SaveTrouble on={on} />
          <ChangeList on={on}>
            <ForgetMenu on={on} segments={segments} />
            <RanSheet on={on} segments={segments} heard={heard} cuesOn={mix.cuesOn} onHushCues={hushCues} />
          </ChangeList>
        </div>
      </div>
      <StaleDialog open={on.saveState === 'stale'} hint={words.staleText} onAnswer={on.resolveStale} />
      <Shores segments={segments} on={on} reel={reel} heard={heard} clock={clock} playing={playing} />
    </>
  )
}

/** Why ties are not saved, while they are not. */
function SaveTrouble({ on }: { on: On }): ReactNode {
  const said =
    on.saveState === 'offline'
      ? texts.score.offline
      : on.saveState === 'refused'
        ? texts.score.refused(on.refusal)
        : null
  return (
    said && (
      <p role="alert" className="pb-2 text-signal">
        {said}
      </p>
    )
  )
}
