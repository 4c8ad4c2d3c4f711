// The coach's own voice: the lines that this workout needs, recorded one by one in the browser or given as files.
'use client'
import { Mic, Square, Trash2, Upload } from 'lucide-react'
import { useRef, useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import { soundTexts as words } from '@/core/words/en/sounds'
import { call } from '../api'
import { Button, IconButton } from '../parts/Button'
import { FileInput } from '../parts/FileInput'
import type { WatchedSound } from './useSound'

const seconds = new Intl.NumberFormat('en-GB', { minimumFractionDigits: 1, maximumFractionDigits: 1 })

export function RecordLines({ sound }: { sound: WatchedSound }): ReactNode {
  const { lines, lengths, recorded } = sound
  const keep = async (line: string, wave: Blob): Promise<void> => {
    const answer = await fetch(`/api/recordings?${new URLSearchParams({ line }).toString()}`, {
      method: 'PUT',
      body: wave,
    }).catch(() => null)
    if (answer?.ok) return recorded(line)
    const told = (await answer?.json().catch(() => null)) as { problem?: { message: string } } | null
    toast.error(told?.problem?.message ?? words.microphone)
  }
  const { now, start, stop } = useRecorder((line, wave) => void keep(line, wave))
  const forget = (line: string): void =>
    void call('DELETE', `/api/recordings?${new URLSearchParams({ line }).toString()}`)
      .then(() => recorded(line))
      .catch((error: Error) => toast.error(error.message))
  const shortestFirst = [...lines].sort((one, other) => one.length - other.length || (one < other ? -1 : 1))
  return (
    <section className="mt-6">
      <h3 className="text-xl">{words.record}</h3>
      <p className="mt-1 text-quiet">
        {lines.every((line) => lengths.has(line)) ? words.allRecorded : words.recordHint}
      </p>
      <ul className="mt-2 max-h-[40vh] divide-y divide-rule overflow-y-auto border-y-2 border-ink pr-2">
        {shortestFirst.map((line) => {
          const ms = lengths.get(line)
          return (
            <li key={line} className="flex items-center gap-2 py-1">
              <span className={`flex-1 ${ms === undefined ? '' : 'font-bold'}`}>{line}</span>
              {ms !== undefined && (
                <>
                  <span className="text-quiet tabular-nums">{words.recorded(seconds.format(ms / 1000))}</span>
                  <IconButton label={words.forget(line)} onClick={() => forget(line)}>
                    <Trash2 size={17} />
                  </IconButton>
                </>
              )}
              <FileButton line={line} onFile={(file) => void keep(line, file)} />
              {now === line ? (
                <Button weight="main" icon={<Square size={16} />} onClick={stop}>
                  {words.recordStop}
                </Button>
              ) : (
                <IconButton label={words.recordOne(line)} disabled={now !== null} onClick={() => void start(line)}>
                  <Mic size={18} />
                </IconButton>
              )}
            </li>
          )
        })}
      </ul>
    </section>
  )
}

function FileButton({ line, onFile }: { line: string; onFile: (file: File) => void }): ReactNode {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <IconButton label={words.recordFile(line)} onClick={() => input.current?.click()}>
        <Upload size={17} />
      </IconButton>
      <FileInput ref={input} label={words.recordFile(line)} accept="audio/*" onFile={onFile} />
    </>
  )
}

interface Recorder {
  /** The line that is being recorded. */
  now: string | null
  start: (line: string) => Promise<void>
  stop: () => void
}

/** One line at a time; the microphone is let go of after each. */
function useRecorder(onDone: (line: string, wave: Blob) => void): Recorder {
  const running = useRef<MediaRecorder | null>(null)
  const [now, setNow] = useState<string | null>(null)
  const start = async (line: string): Promise<void> => {
    const stream = await navigator.mediaDevices?.getUserMedia({ audio: true }).catch(() => null)
    if (!stream) return void toast.error(words.microphone)
    const recorder = new MediaRecorder(stream)
    const parts: Blob[] = []
    recorder.ondataavailable = ({ data }) => void parts.push(data)
    recorder.onstop = () => {
      for (const track of stream.getTracks()) track.stop()
      setNow(null)
      onDone(line, new Blob(parts, { type: recorder.mimeType }))
    }
    running.current = recorder
    setNow(line)
    recorder.start()
  }
  return { now, start, stop: () => running.current?.stop() }
}
