// Work that the browser keeps beyond a reload or a crash, for each tab apart: two tabs with the same document never
// write over each other's, and a tab finds what another left when it is gone.
'use client'
import { del, get, keys, set } from 'idb-keyval'
import { newKey } from './newKey'

const TAB = 'jivet-tab'
const lockOf = (tab: string): string => `jivet-tab:${tab}`

let mine: Promise<string> | undefined

/** This tab's own name, held as long as it lives; a tab that was doubled gets another. */
const tabName = (): Promise<string> => (mine ??= hold(globalThis.sessionStorage?.getItem(TAB) ?? newKey()))

function hold(name: string): Promise<string> {
  const { locks } = globalThis.navigator ?? {}
  if (!locks) return Promise.resolve(name)
  return new Promise((resolve) => {
    void locks.request(lockOf(name), { ifAvailable: true }, (lock) => {
      if (!lock) return resolve(hold(newKey()))
      sessionStorage.setItem(TAB, name)
      resolve(name)
      return new Promise<never>(() => {})
    })
  })
}

/** Keeps work under a document's name. Where the browser keeps nothing, nothing is kept. */
export async function keepWork(document: string, work: unknown): Promise<void> {
  await tabName()
    .then((tab) => set(`${document}@${tab}`, work))
    .catch(() => {})
}

/** @returns what this tab kept of a document, else what a tab that is gone did; null where there is nothing. */
export async function keptWork<T>(document: string): Promise<T | null> {
  try {
    const own = `${document}@${await tabName()}`
    const found = await get<T>(own)
    if (found !== undefined) return found
    const held = new Set((await globalThis.navigator?.locks?.query())?.held?.map(({ name }) => name))
    for (const key of await keys<string>()) {
      if (!key.startsWith(`${document}@`) || held.has(lockOf(key.slice(document.length + 1)))) continue
      const left = await get<T>(key)
      await del(key)
      if (left !== undefined) return left
    }
    return null
  } catch {
    return null
  }
}

export async function forgetWork(document: string): Promise<void> {
  await tabName()
    .then((tab) => del(`${document}@${tab}`))
    .catch(() => {})
}
