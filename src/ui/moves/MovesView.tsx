// The move library: search and filter on the left, one move with all its fields on the right.
'use client'
import { useVirtualizer } from '@tanstack/react-virtual'
import { Download, Plus, Search, Upload } from 'lucide-react'
import { useMemo, useRef, useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import { libraryOf } from '@/core/score/library'
import type { Move } from '@/core/score/move'
import { moveSchema } from '@/core/score/move'
import { IMPACTS, MUSCLES, POSTURES } from '@/core/score/postures'
import { writeMovesCsv, writeMovesJson } from '@/core/write/moveFile'
import { call, CallError } from '../api'
import { Bar } from '../parts/Bar'
import { Button } from '../parts/Button'
import { ChoiceField } from '../parts/fields'
import { scoreTexts } from '../score/texts'
import { MoveEditor } from './MoveEditor'
import { EMPTY_FILTER, filterMoves, type MoveFilter } from './filterMoves'

const words = scoreTexts.moves
const ROW_PX = 54

export function MovesView({ initial }: { initial: Move[] }): ReactNode {
  const [own, setOwn] = useState(initial)
  const [filter, setFilter] = useState<MoveFilter>(EMPTY_FILTER)
  const [chosen, setChosen] = useState<string | null>(null)
  const [fresh, setFresh] = useState(false)
  const [problems, setProblems] = useState<string[]>([])
  const scroller = useRef<HTMLDivElement>(null)
  const file = useRef<HTMLInputElement>(null)
  const ownNames = useMemo(() => new Set(own.map((move) => move.name.toLowerCase())), [own])
  const all = useMemo(() => libraryOf(own), [own])
  const tags = useMemo(() => [...new Set(all.flatMap((move) => move.tags))].sort(), [all])
  const shown = useMemo(() => filterMoves(all, filter, ownNames), [all, filter, ownNames])
  // eslint-disable-next-line react-hooks/incompatible-library -- as in the running sheet
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 8,
  })
  const current = fresh ? null : (all.find((move) => move.name === chosen) ?? null)

  const bringIn = async (picked: File): Promise<void> => {
    try {
      const {
        taken,
        problems: refused,
        moves,
      } = await call<{ taken: number; problems: string[]; moves: Move[] }>('POST', '/api/moves/import', {
        text: await picked.text(),
        name: picked.name,
      })
      setOwn(moves)
      setProblems(refused)
      toast(words.imported(taken))
    } catch (error) {
      toast.error(`${words.failed}${error instanceof CallError ? error.message : String(error)}`)
    }
  }
  const save = (text: string, name: string, type: string): void => {
    const link = Object.assign(document.createElement('a'), {
      href: URL.createObjectURL(new Blob([text], { type })),
      download: name,
    })
    link.click()
    URL.revokeObjectURL(link.href)
  }
  const pickOptions = <T extends string>(names: readonly T[], labels: Record<T, string>): Record<T | '', string> =>
    ({ '': words.all, ...Object.fromEntries(names.map((name) => [name, labels[name]])) }) as Record<T | '', string>
  return (
    <div className="flex h-dvh flex-col">
      <Bar />
      <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(420px,46%)] max-md:grid-cols-1">
        <section className="flex min-h-0 flex-col border-r-4 border-ink px-6 pt-4">
          <div className="flex items-baseline gap-4">
            <h1 className="text-4xl">{words.heading}</h1>
            <span className="text-quiet tabular-nums" role="status">
              {words.count(shown.length, all.length)}
            </span>
          </div>
          <label className="mt-2 flex min-h-10 items-center gap-2 border-b-2 border-ink">
            <Search size={18} />
            <input
              type="search"
              aria-label={words.search}
              placeholder={words.search}
              value={filter.text}
              onChange={(event) => setFilter({ ...filter, text: event.target.value })}
              className="min-h-10 flex-1 bg-transparent px-1 placeholder:text-quiet"
            />
          </label>
          <div className="flex flex-wrap gap-x-4 py-2">
            <ChoiceField
              label={words.fields.posture}
              showLabel
              value={filter.posture}
              options={pickOptions(POSTURES, scoreTexts.postures)}
              onChange={(posture) => setFilter({ ...filter, posture })}
            />
            <ChoiceField
              label={words.fields.muscles}
              showLabel
              value={filter.muscle}
              options={pickOptions(MUSCLES, scoreTexts.muscles)}
              onChange={(muscle) => setFilter({ ...filter, muscle })}
            />
            <ChoiceField
              label={words.fields.impact}
              showLabel
              value={filter.impact}
              options={pickOptions(IMPACTS, scoreTexts.impacts)}
              onChange={(impact) => setFilter({ ...filter, impact })}
            />
            <ChoiceField
              label={words.fields.tags}
              showLabel
              value={filter.tag}
              options={{ '': words.all, ...Object.fromEntries(tags.map((tag) => [tag, tag])) }}
              onChange={(tag) => setFilter({ ...filter, tag })}
            />
            <label className="flex min-h-9 items-center gap-2 self-end">
              <input
                type="checkbox"
                className="size-5 accent-[var(--ink)]"
                checked={filter.ownOnly}
                onChange={(event) => setFilter({ ...filter, ownOnly: event.target.checked })}
              />
              {words.ownOnly}
            </label>
          </div>
          <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto bg-pale" tabIndex={-1}>
            {!shown.length && <p className="p-5 text-quiet">{words.none}</p>}
            <ul style={{ height: rows.getTotalSize(), position: 'relative' }} aria-label={words.heading}>
              {rows.getVirtualItems().map((item) => {
                const move = shown[item.index]
                if (!move) return null
                const active = move.name === current?.name
                return (
                  <li
                    key={move.name}
                    style={{
                      position: 'absolute',
                      top: 0,
                      width: '100%',
                      height: ROW_PX,
                      transform: `translateY(${item.start}px)`,
                    }}
                  >
                    <button
                      type="button"
                      aria-current={active}
                      onClick={() => {
                        setChosen(move.name)
                        setFresh(false)
                      }}
                      className={`flex h-full w-full flex-col justify-center border-b border-rule px-4 text-left ${active ? 'bg-land text-print' : 'hover:bg-ink/10'}`}
                    >
                      <span className="flex items-baseline gap-2 font-bold">
                        {move.name}
                        {ownNames.has(move.name.toLowerCase()) && (
                          <span className={`border px-1.5 text-[12px] ${active ? 'border-print' : 'border-ink'}`}>
                            {words.ownMark}
                          </span>
                        )}
                      </span>
                      <span className={`truncate text-[13.5px] ${active ? '' : 'text-quiet'}`}>
                        {[
                          scoreTexts.postures[move.posture],
                          move.muscles.map((muscle) => scoreTexts.muscles[muscle]).join(', '),
                          move.gear.join(', '),
                        ]
                          .filter(Boolean)
                          .join(' · ')}
                      </span>
                    </button>
                  </li>
                )
              })}
            </ul>
          </div>
          <div className="flex flex-wrap gap-2 py-3">
            <Button weight="main" icon={<Plus size={18} />} onClick={() => setFresh(true)}>
              {words.add}
            </Button>
            <Button icon={<Upload size={17} />} onClick={() => file.current?.click()}>
              {words.import}
            </Button>
            <Button
              weight="bare"
              icon={<Download size={17} />}
              onClick={() => save(writeMovesCsv(shown), 'moves.csv', 'text/csv')}
            >
              {words.exportCsv}
            </Button>
            <Button
              weight="bare"
              icon={<Download size={17} />}
              onClick={() => save(writeMovesJson(shown), 'moves.json', 'application/json')}
            >
              {words.exportJson}
            </Button>
            <input
              ref={file}
              type="file"
              accept=".csv,.json"
              className="hidden"
              aria-label={words.import}
              onChange={(event) => {
                const picked = event.target.files?.[0]
                if (picked) void bringIn(picked)
                event.target.value = ''
              }}
            />
          </div>
          {problems.length > 0 && (
            <div role="alert" className="mb-3 max-h-32 overflow-y-auto bg-signal p-3 text-paper">
              <b>{words.refused(problems.length)}</b>
              <ul>
                {problems.slice(0, 50).map((problem) => (
                  <li key={problem}>{problem}</li>
                ))}
              </ul>
            </div>
          )}
        </section>
        <section className="min-h-0 overflow-y-auto px-7 py-4">
          {current || fresh ? (
            <MoveEditor
              key={fresh ? ' new' : current?.name}
              move={current ?? moveSchema.parse({ name: 'x' })}
              isNew={fresh}
              isOwn={current ? ownNames.has(current.name.toLowerCase()) : false}
              tags={tags}
              onSaved={(moves, name) => {
                setOwn(moves)
                setFresh(false)
                setChosen(name)
              }}
              onCancel={() => setFresh(false)}
            />
          ) : (
            <p className="pt-8 text-lg text-quiet">{words.choose}</p>
          )}
        </section>
      </main>
    </div>
  )
}
