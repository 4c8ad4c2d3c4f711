import { mkdtempSync, readdirSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { Cache, cacheFolder } from './cache'

let folder = ''
const before = process.env.XDG_CACHE_HOME
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'jivet-cache-'))
  process.env.XDG_CACHE_HOME = folder
})
afterEach(() => {
  if (before === undefined) delete process.env.XDG_CACHE_HOME
  else process.env.XDG_CACHE_HOME = before
  rmSync(folder, { recursive: true })
})
const place = (name: string): string => join(folder, 'jivet', 'test', name)
const SECONDS_A_DAY = 86_400

describe('a cache', () => {
  it('is where the system says, and an empty setting is none', () => {
    expect(cacheFolder('x')).toBe(join(folder, 'jivet', 'x'))
    process.env.XDG_CACHE_HOME = ''
    expect(cacheFolder('x')).toMatch(/^\/.*\.cache\/jivet\/x$/)
  })

  it('gives back what it was given, and takes what was never written to its end for nothing', async () => {
    const cache = new Cache('test', { mostBytes: 1000, leastBytes: 3 })
    await cache.keep('a', 'whole')
    expect((await cache.recall('a'))?.toString()).toBe('whole')
    expect(await cache.bytesOf('a')).toBe(5)
    writeFileSync(place('a'), '')
    expect(await cache.recall('a')).toBeNull()
    expect(await cache.recall('b')).toBeNull()
    expect([await cache.bytesOf('a'), await cache.bytesOf('b')]).toEqual([null, null])
  })

  it('has a limit, and keeps what was used last', async () => {
    const cache = new Cache('test', { mostBytes: 100, leastBytes: 1 })
    const now = Date.now() / 1000
    for (const [at, name] of ['a', 'b', 'c'].entries()) {
      await cache.keep(name, 'x'.repeat(30))
      const usedAt = now - (10 - at) * SECONDS_A_DAY
      utimesSync(place(name), usedAt, usedAt)
    }
    // Used now, so that it is not the oldest any more.
    await cache.recall('a')
    expect(statSync(place('a')).mtimeMs / 1000).toBeGreaterThan(now - 60)
    await cache.keep('e', 'x'.repeat(30))
    expect(readdirSync(join(folder, 'jivet', 'test')).sort()).toEqual(['a', 'c', 'e'])
  })
})
