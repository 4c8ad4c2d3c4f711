// The picture of a reel: its files' videos on top of one another, played as one film.
'use client'
import { useImperativeHandle, useRef, type ReactNode, type Ref } from 'react'
import type { Ms } from '@/core/units'
import type { FootageProgress, ReelProgress } from '@/server/progress'
import { ReelFilm } from './ReelFilm'

/** What a film is made of: files end to end, then second cameras behind them. */
export interface FilmFile {
  id: string
  durationMs: Ms
}

/** How long a file is, as far as that is known. */
export const lengthOf = ({ facts }: Pick<FootageProgress, 'facts'>): Ms => facts?.durationMs ?? 0

/** The files of a reel as they lie end to end. */
export const filmFiles = ({ files, cameras }: Pick<ReelProgress, 'files' | 'cameras'>): FilmFile[] =>
  [...files, ...cameras].map((file) => ({ id: file.id, durationMs: lengthOf(file) }))

interface Props {
  /** One and the same for as long as it lives: other files are another film. */
  files: readonly FilmFile[]
  /** How many of them follow one another. */
  main: number
  film: Ref<ReelFilm | null>
  className: string
  onClick: () => void
}

export function ReelVideo({ files, main, film, className, onClick }: Props): ReactNode {
  const frame = useRef<HTMLDivElement>(null)
  useImperativeHandle(film, () => {
    const elements = [...(frame.current?.querySelectorAll('video') ?? [])]
    const style = frame.current?.style ?? { transform: '', visibility: '' }
    return new ReelFilm(
      elements,
      files.map(({ durationMs }) => durationMs),
      main,
      style,
    )
    // Other files are another component: see its key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [])
  return (
    <div ref={frame} className={`relative ${className}`} onClick={onClick}>
      {files.map(({ id }, at) => (
        <video
          key={id}
          src={`/api/footage/${id}/picture`}
          preload={at < 2 ? 'auto' : 'metadata'}
          playsInline
          className="absolute inset-0 h-full w-full [object-fit:var(--fit,contain)] [object-position:var(--aim,50%)_var(--aim,50%)]"
        />
      ))}
    </div>
  )
}
