// Moves to and from files, and a new one.
'use client'
import { Download, Plus, Upload } from 'lucide-react'
import { useRef, type ReactNode } from 'react'
import type { Move } from '@/core/score/move'
import { scoreTexts } from '@/core/words/en/score'
import { writeMovesCsv, writeMovesJson } from '@/core/write/moveFile'
import { Button } from '../parts/Button'
import { FileInput } from '../parts/FileInput'

const words = scoreTexts.moves

interface Props {
  /** Those that are written. */
  moves: readonly Move[]
  onNew: () => void
  onFile: (file: File) => void
}

export function MoveFiles({ moves, onNew, onFile }: Props): ReactNode {
  const file = useRef<HTMLInputElement>(null)
  return (
    <div className="flex flex-wrap gap-2 py-3">
      <Button weight="main" icon={<Plus size={18} />} onClick={onNew}>
        {words.add}
      </Button>
      <Button icon={<Upload size={17} />} onClick={() => file.current?.click()}>
        {words.import}
      </Button>
      <Button
        weight="bare"
        icon={<Download size={17} />}
        onClick={() => download(writeMovesCsv(moves), 'moves.csv', 'text/csv')}
      >
        {words.exportCsv}
      </Button>
      <Button
        weight="bare"
        icon={<Download size={17} />}
        onClick={() => download(writeMovesJson(moves), 'moves.json', 'application/json')}
      >
        {words.exportJson}
      </Button>
      <FileInput ref={file} label={words.import} accept=".csv,.json" onFile={onFile} />
    </div>
  )
}

function download(text: string, name: string, type: string): void {
  const href = URL.createObjectURL(new Blob([text], { type }))
  Object.assign(document.createElement('a'), { href, download: name }).click()
  URL.revokeObjectURL(href)
}
