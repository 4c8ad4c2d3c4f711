// The music of a workout: its pieces in order, how loud they are, and a reminder that they are somebody's.
'use client'
import { ArrowUp, Plus, X } from 'lucide-react'
import { useEffect, useRef, useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import type { Mix } from '@/core/sound/mix'
import { MUSIC_LU, type MusicPiece } from '@/core/sound/music'
import { formatLength } from '@/core/time/clock'
import { musicTexts as words } from '@/core/words/en/music'
import { call } from '../api'
import { Button, IconButton } from '../parts/Button'
import { FileInput } from '../parts/FileInput'
import { Level } from '../parts/Level'

interface Props {
  mix: Mix
  onMix: (part: Partial<Mix>) => void
}

export function MusicField({ mix, onMix }: Props): ReactNode {
  const { music } = mix
  const [known, setKnown] = useState<readonly MusicPiece[]>([])
  const [coming, setComing] = useState<string | null>(null)
  const input = useRef<HTMLInputElement>(null)
  useEffect(() => {
    void call<{ pieces: MusicPiece[] }>('GET', '/api/music')
      .then(({ pieces }) => setKnown(pieces))
      .catch(() => undefined)
  }, [])
  const change = (pieces: MusicPiece[]): void => onMix({ music: { ...music, pieces } })
  const bring = async (file: File): Promise<void> => {
    setComing(file.name)
    try {
      const piece = await brought(file)
      setKnown((before) => [piece, ...before.filter(({ hash }) => hash !== piece.hash)])
      change([...music.pieces, piece])
    } catch (error) {
      toast.error(error instanceof Error ? error.message : words.failed)
    } finally {
      setComing(null)
    }
  }
  const others = known.filter(({ hash }) => !music.pieces.some((piece) => piece.hash === hash))
  return (
    <section className="mt-6">
      <h3 className="text-xl">{words.heading}</h3>
      <p className="mt-1 text-sm text-quiet">{words.hint}</p>
      <Pieces pieces={music.pieces} onChange={change} />
      <div className="mt-3 flex flex-wrap items-center gap-x-6 gap-y-2">
        <Button icon={<Plus size={18} />} disabled={coming !== null} onClick={() => input.current?.click()}>
          {coming === null ? words.bring : words.coming(coming)}
        </Button>
        <FileInput ref={input} label={words.bring} accept="audio/*,video/*" onFile={(file) => void bring(file)} />
        {others.length > 0 && <Before pieces={others} onChoose={(piece) => change([...music.pieces, piece])} />}
        {music.pieces.length > 0 && (
          <Level
            label={words.level}
            value={music.lu}
            range={{ ...MUSIC_LU, step: 1 }}
            told={words.units(music.lu)}
            onChange={(lu) => onMix({ music: { ...music, lu } })}
          />
        )}
      </div>
      {music.pieces.length > 0 && <p className="mt-3 border-l-8 border-land bg-pale p-3 text-sm">{words.rights}</p>}
    </section>
  )
}

/** In the order in which they play. */
function Pieces({ pieces, onChange }: { pieces: MusicPiece[]; onChange: (pieces: MusicPiece[]) => void }): ReactNode {
  return (
    <ol aria-label={words.heading} className="mt-2 divide-y divide-rule border-y border-rule empty:hidden">
      {pieces.map((piece, at) => (
        <li key={`${piece.hash} ${at}`} className="flex min-h-11 items-center gap-2">
          <span className="min-w-0 flex-1 truncate font-bold">{piece.name}</span>
          <span className="text-quiet tabular-nums">{formatLength(Math.round(piece.ms / 1000) * 1000)}</span>
          <IconButton label={words.earlier(piece.name)} disabled={at === 0} onClick={() => onChange(moved(pieces, at))}>
            <ArrowUp size={17} />
          </IconButton>
          <IconButton label={words.out(piece.name)} onClick={() => onChange(pieces.filter((_, other) => other !== at))}>
            <X size={17} />
          </IconButton>
        </li>
      ))}
    </ol>
  )
}

/** What was brought for another workout, or taken out of this one. */
function Before({
  pieces,
  onChoose,
}: {
  pieces: readonly MusicPiece[]
  onChoose: (piece: MusicPiece) => void
}): ReactNode {
  return (
    <label className="flex items-center gap-2 text-quiet">
      {words.before}
      <select
        className="min-h-10 max-w-[240px] border-b-2 border-rule bg-transparent px-1 text-ink"
        value=""
        onChange={(event) => {
          const piece = pieces.find(({ hash }) => hash === event.target.value)
          if (piece) onChoose(piece)
        }}
      >
        <option value="">{words.choose}</option>
        {pieces.map(({ hash, name }) => (
          <option key={hash} value={hash}>
            {name}
          </option>
        ))}
      </select>
    </label>
  )
}

function moved(pieces: readonly MusicPiece[], at: number): MusicPiece[] {
  const next = [...pieces]
  next.splice(at - 1, 0, ...next.splice(at, 1))
  return next
}

async function brought(file: File): Promise<MusicPiece> {
  const name = file.name.replace(/\.[^.]+$/, '')
  const answer = await fetch(`/api/music?${new URLSearchParams({ name }).toString()}`, { method: 'POST', body: file })
  const told = (await answer.json().catch(() => null)) as { piece?: MusicPiece; problem?: { message: string } } | null
  if (!told?.piece) throw new Error(told?.problem?.message ?? words.failed)
  return told.piece
}
