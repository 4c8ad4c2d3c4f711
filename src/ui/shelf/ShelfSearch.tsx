// Looks for workouts by their names and moves, in an order of choice; and the way to those that were taken off.
'use client'
import Form from 'next/form'
import Link from 'next/link'
import { Search } from 'lucide-react'
import { useEffect, useId, useRef, type ReactNode } from 'react'
import type { ShelfOrder, ShelfQuestion } from '@/server/workouts'
import { texts } from '@/core/words/en/screens'

const words = texts.shelf
/** Whoever stops for so long has typed enough to look for. */
const TYPED_MS = 200
const ORDERS = Object.entries(words.orders) as [ShelfOrder, string][]

export function ShelfSearch({ question, removed }: { question: ShelfQuestion; removed: number }): ReactNode {
  const id = useId()
  const field = useRef<HTMLInputElement>(null)
  const soon = useRef<ReturnType<typeof setTimeout>>(undefined)
  // Another question that did not come from the field, as by going back.
  useEffect(() => {
    if (field.current && document.activeElement !== field.current) field.current.value = question.search
  }, [question.search])
  useEffect(() => () => clearTimeout(soon.current), [])
  return (
    <Form action="/" replace className="flex flex-wrap items-end gap-x-5 gap-y-2 pb-6" role="search">
      <label htmlFor={`${id}-search`} className="flex min-w-52 flex-1 flex-col text-[13px] text-quiet">
        {words.search}
        <span className="flex items-center gap-2 border-b-2 border-ink bg-pale px-2 text-ink focus-within:bg-land/20">
          <Search size={17} aria-hidden />
          <input
            id={`${id}-search`}
            name="search"
            type="search"
            ref={field}
            defaultValue={question.search}
            onChange={({ currentTarget: { form } }) => {
              clearTimeout(soon.current)
              soon.current = setTimeout(() => form?.requestSubmit(), TYPED_MS)
            }}
            placeholder={words.searchExample}
            autoComplete="off"
            className="min-h-10 w-full bg-transparent text-base outline-none placeholder:text-quiet/70"
          />
        </span>
      </label>
      <label htmlFor={`${id}-order`} className="flex flex-col text-[13px] text-quiet">
        {words.order}
        <select
          id={`${id}-order`}
          name="order"
          key={question.order}
          defaultValue={question.order}
          onChange={(event) => event.currentTarget.form?.requestSubmit()}
          className="min-h-10 border-b-2 border-ink bg-transparent px-1 text-base text-ink"
        >
          {ORDERS.map(([order, label]) => (
            <option key={order} value={order} className="bg-paper text-ink">
              {label}
            </option>
          ))}
        </select>
      </label>
      {question.removed && <input type="hidden" name="removed" value="yes" />}
      {(removed > 0 || question.removed) && (
        <Link
          href={question.removed ? '/' : '/?removed=yes'}
          className="inline-flex min-h-10 items-center px-2 font-bold underline"
        >
          {question.removed ? words.toShelf : words.toRemoved(removed)}
        </Link>
      )}
    </Form>
  )
}
