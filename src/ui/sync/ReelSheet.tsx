// The files of a workout: those that follow one another, in an order that can be changed; second cameras; and what was
// put aside. Everything here can be had back.
'use client'
import { Captions, Film, Plus, Replace } from 'lucide-react'
import { useRef, useState, type ReactNode } from 'react'
import { filesInRow } from '@/core/filesInRow'
import { formatClock } from '@/core/time/clock'
import { reelTexts as words } from '@/core/words/en/reel'
import { sizeText } from '@/core/words/en/sizes'
import type { FootageAside } from '@/server/footage'
import type { CameraProgress, FootageProgress, ReelProgress } from '@/server/progress'
import { Button, IconButton } from '../parts/Button'
import { FileInput } from '../parts/FileInput'
import { RemoveForGood } from '../parts/RemoveForGood'
import { Sheet } from '../parts/Sheet'
import { lengthOf } from '../parts/ReelVideo'
import { moveWithin, SortableList, useGrip } from '../parts/sortable'
import type { ReelChanges } from './useReelChanges'

interface Props {
  reel: ReelProgress
  aside: readonly FootageAside[]
  onFile: (file: File, replaces?: string) => void
  onCaptions: (footageId: string, file: File) => void
  changes: ReelChanges
  /** Takes ties over from a file that was put aside. */
  onTakeOver?: () => void
}

export function ReelSheet({ reel, aside, onFile, onCaptions, changes, onTakeOver }: Props): ReactNode {
  const [open, setOpen] = useState(false)
  const adding = useRef<HTMLInputElement>(null)
  const { files, cameras, offer, orderedBy } = reel
  return (
    <>
      <Button weight="bare" icon={<Film size={17} />} onClick={() => setOpen(true)}>
        {words.open(files.length + cameras.length, aside.length)}
      </Button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title={words.heading}
        hint={files.length > 1 ? words.order[orderedBy] : words.hint}
        wide
        calm
      >
        {offer && onTakeOver && (
          <Offer
            offer={offer}
            onTakeOver={() => {
              onTakeOver()
              setOpen(false)
            }}
          />
        )}
        <Files
          files={files}
          overlaps={reel.overlaps}
          changes={changes}
          onCaptions={onCaptions}
          onReplace={(file, replaces) => {
            onFile(file, replaces)
            setOpen(false)
          }}
        />
        <FileInput
          ref={adding}
          label={words.add}
          multiple
          onFile={(file) => {
            onFile(file)
            setOpen(false)
          }}
        />
        <div className="flex flex-wrap gap-3 pt-4">
          <Button weight="main" icon={<Plus size={18} />} onClick={() => adding.current?.click()}>
            {words.add}
          </Button>
          {orderedBy === 'hand' && <Button onClick={() => changes.order(null)}>{words.asFilmed}</Button>}
        </div>
        {cameras.length > 0 && (
          <Group title={words.cameras} hint={words.camerasHint}>
            {cameras.map((camera) => (
              <CameraRow
                key={camera.id}
                camera={camera}
                beside={files.find(({ id }) => id === camera.beside.id)?.name ?? ''}
                onAlone={() => changes.standAlone(camera)}
                onAside={() => changes.putAside(camera)}
              />
            ))}
          </Group>
        )}
        {aside.length > 0 && (
          <Group title={words.aside}>
            {aside.map((one) => (
              <Row key={one.id} name={one.name} note={`${words.withTies(one.ties)}, ${sizeText(one.bytes)}`}>
                <Button onClick={() => changes.takeBack(one)}>{words.takeBack}</Button>
                <RemoveForGood what="footage" name={one.name} bytes={one.bytes} path={`/api/footage/${one.id}`} />
              </Row>
            ))}
          </Group>
        )}
      </Sheet>
    </>
  )
}

/** Ties that wait with a file of the same sound. */
function Offer({
  offer: { name, from },
  onTakeOver,
}: {
  offer: NonNullable<ReelProgress['offer']>
  onTakeOver: () => void
}): ReactNode {
  return (
    <div className="mb-4 flex flex-wrap items-center gap-x-5 gap-y-2 border-l-8 border-land bg-pale px-4 py-3">
      <p className="min-w-0 flex-1">{words.offer(name, from.name, from.ties)}</p>
      <Button onClick={onTakeOver}>{words.takeOver}</Button>
    </div>
  )
}

interface FilesProps extends Pick<Props, 'changes' | 'onCaptions'> {
  files: readonly FootageProgress[]
  overlaps: ReelProgress['overlaps']
  onReplace: (file: File, replaces: string) => void
}

/** The files that follow one another; each can be moved. */
function Files({ files, overlaps, changes, onCaptions, onReplace }: FilesProps): ReactNode {
  const { beginMs } = filesInRow(files.map(lengthOf))
  const ids = files.map(({ id }) => id)
  const move = (from: number, to: number): void => {
    const order = [...ids]
    moveWithin(order, from, to)
    changes.order(order)
  }
  return (
    <SortableList keys={ids} onMove={move}>
      <ol aria-label={words.heading} className="border-t-2 border-rule">
        {files.map((file, at) => (
          <FileRow
            key={file.id}
            file={file}
            beginMs={beginMs[at] ?? 0}
            overlap={overlaps.find(({ id }) => id === file.id) ?? null}
            number={files.length > 1 ? at + 1 : null}
            onReplace={(chosen) => onReplace(chosen, file.id)}
            onCaptions={(chosen) => onCaptions(file.id, chosen)}
            onAside={() => changes.putAside(file)}
          />
        ))}
      </ol>
    </SortableList>
  )
}

function Group({ title, hint, children }: { title: string; hint?: string; children: ReactNode }): ReactNode {
  return (
    <section className="pt-7">
      <h3 className="font-display text-2xl">{title}</h3>
      {hint && <p className="pb-1 text-quiet">{hint}</p>}
      <ul className="border-t-2 border-rule">{children}</ul>
    </section>
  )
}

function Row({ name, note, children }: { name: string; note: string; children: ReactNode }): ReactNode {
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule py-2">
      <Named name={name} note={note} />
      {children}
    </li>
  )
}

function Named({ name, note }: { name: string; note: string }): ReactNode {
  return (
    <span className="min-w-0 flex-1 basis-52">
      <b className="block truncate">{name}</b>
      <span className="block text-sm text-quiet tabular-nums">{note}</span>
    </span>
  )
}

interface FileRowProps {
  file: FootageProgress
  beginMs: number
  /** Its place; null where it is the only one. */
  number: number | null
  /** What it shows that another file shows as well. */
  overlap: ReelProgress['overlaps'][number] | null
  onReplace: (file: File) => void
  onCaptions: (file: File) => void
  onAside: () => void
}

function FileRow({ file, beginMs, number, overlap, onReplace, onCaptions, onAside }: FileRowProps): ReactNode {
  const { setNodeRef, style, grip } = useGrip(file.id)
  const replacing = useRef<HTMLInputElement>(null),
    captions = useRef<HTMLInputElement>(null)
  const lengthMs = lengthOf(file)
  const note = number
    ? words.from(formatClock(beginMs), formatClock(beginMs + lengthMs))
    : words.lasts(formatClock(lengthMs))
  return (
    <li
      ref={setNodeRef}
      style={style}
      className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-paper py-2"
    >
      {number !== null && (
        <>
          {grip}
          <span className="w-6 font-display text-2xl tabular-nums">{number}</span>
        </>
      )}
      <Named
        name={file.name}
        note={overlap ? `${note}; ${words.overlaps(formatClock(overlap.byMs), overlap.other)}` : note}
      />
      <FileInput ref={replacing} label={words.replace(file.name)} onFile={onReplace} />
      <FileInput ref={captions} label={words.addCaptions(file.name)} accept=".vtt,.srt,text/vtt" onFile={onCaptions} />
      <IconButton label={words.addCaptions(file.name)} onClick={() => captions.current?.click()}>
        <Captions size={18} />
      </IconButton>
      <IconButton label={words.replace(file.name)} onClick={() => replacing.current?.click()}>
        <Replace size={17} />
      </IconButton>
      <Button weight="bare" onClick={onAside}>
        {words.putAside}
      </Button>
    </li>
  )
}

interface CameraRowProps {
  camera: CameraProgress
  /** The name of the file that it stands beside. */
  beside: string
  onAlone: () => void
  onAside: () => void
}

function CameraRow({ camera, beside, onAlone, onAside }: CameraRowProps): ReactNode {
  const { atMs } = camera.beside
  const note = atMs < 0 ? words.before(formatClock(-atMs), beside) : words.into(formatClock(atMs), beside)
  return (
    <Row name={camera.name} note={note}>
      <Button weight="bare" onClick={onAlone}>
        {words.alone}
      </Button>
      <Button weight="bare" onClick={onAside}>
        {words.putAside}
      </Button>
    </Row>
  )
}
