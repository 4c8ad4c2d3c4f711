// What a workout is dressed with, against a real PostgreSQL: mix, looks, music, and what a video was made with.
import { execFileSync } from 'node:child_process'
import { createReadStream, existsSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { USUAL_CUES } from '../src/core/cue/wishes'
import { USUAL_CUT } from '../src/core/cut/fit'
import { AS_FILMED } from '../src/core/cut/framing'
import { USUAL_LOOK } from '../src/core/look/looks/family'
import { USUAL_MIX } from '../src/core/sound/mix'
import { circuit, score } from '../src/core/testing'
import type { Version } from '../src/core/version'
import { samplesOf } from './e2e/decode'
import { filmed, save } from './filmed'
import { rendered, startedDatabase } from './records'

const home = startedDatabase()

const at = (revision: number): Version => ({ revision, key: null })

const parts = async () => ({
  ...(await import('../src/server/db')),
  ...(await import('../src/server/workouts')),
  ...(await import('../src/server/looks')),
  ...(await import('../src/server/music')),
  ...(await import('../src/server/jobs')),
  ...(await import('../src/server/reel')),
  ...(await import('../src/server/footage')),
  ...(await import('../src/server/store')),
  ...(await import('../src/server/tidy')),
  ...(await import('../src/server/progress')),
  ...(await import('../src/server/packs')),
  ...(await import('../src/server/saveSetting')),
  ...(await import('../src/server/workoutState')),
})

it('begins with its tables', async () => {
  const { migrate } = await import('../src/server/migrate')
  expect((await migrate()).at(-1)).toMatch(/^\d{3}_\w+(\.sql)?$/)
})

describe('a setting', () => {
  it('that two pages change at once has what both did', async () => {
    const { createWorkout, saveSetting, findWorkout } = await parts()
    const id = await createWorkout(score(circuit()))
    const base = (await findWorkout(id)).proof
    const note = (key: string) => ({ id: key, segmentId: 'main/r1/s1/work', offsetMs: 0, text: key })
    await saveSetting(id, 'proof', { ...base, notes: [note('one')] }, base)
    const both = await saveSetting(id, 'proof', { checked: { a: 'b' }, notes: [note('two')] }, base)
    expect(both.notes.map(({ id }) => id).sort()).toEqual(['one', 'two'])
    expect((await findWorkout(id)).proof).toEqual(both)
    // Whoever sends it whole has it so.
    expect(await saveSetting(id, 'proof', base)).toEqual(base)
  })
})

describe('a video', () => {
  it('says what has changed since: score, ties, footage, cut, look', async () => {
    const { createWorkout, saveScore, addPack, addJob, sql, progressOf, takeIntoReel, ...kept } = await parts()
    const { saveSetting, findWorkout, shownKey, doneOf } = kept
    const workoutId = await createWorkout(score(circuit()))
    const footageId = await filmed(workoutId)
    await addPack(
      rendered(
        { workoutId, jobId: (await addJob(sql(), { kind: 'render', workoutId, footageId })) ?? '' },
        { scoreShown: shownKey(score(circuit())), reel: [footageId], cues: USUAL_CUES, mix: USUAL_MIX },
      ),
    )
    const changed = async () => (await progressOf(workoutId)).pack?.changed
    expect(await changed()).toEqual({
      score: false,
      ties: false,
      footage: false,
      cut: false,
      look: false,
      framing: false,
      sound: false,
    })
    await saveSetting(workoutId, 'cut', { ...USUAL_CUT, fit: 'fill' })
    expect(await changed()).toMatchObject({ cut: true })
    await saveSetting(workoutId, 'cut', USUAL_CUT)
    await saveSetting(workoutId, 'look', { ...USUAL_LOOK, look: 'slate' })
    expect(await changed()).toMatchObject({ cut: false, look: true, sound: false })
    await saveSetting(workoutId, 'framing', { shape: 'square', keys: [{ footage: footageId, atMs: 0, at: 0.2 }] })
    expect(await changed()).toMatchObject({ framing: true, sound: false })
    expect((await findWorkout(workoutId)).framing.keys).toHaveLength(1)
    await saveSetting(workoutId, 'framing', AS_FILMED)
    await saveSetting(workoutId, 'cues', { ...USUAL_CUES, family: 'rope' })
    expect(await changed()).toMatchObject({ sound: true })
    await saveSetting(workoutId, 'cues', USUAL_CUES)
    await saveSetting(workoutId, 'look', USUAL_LOOK)
    expect(await doneOf(workoutId)).toEqual({ score: true, floor: false, sync: false, ship: true })
    // A series without a next one, and a finding that was set aside, are seen by no viewer.
    const series = { name: 'Deck Hours', next: '' }
    const dismissed = [{ finding: 'rest', reason: 'as filmed' }]
    await saveScore(workoutId, { ...score(circuit()), series, dismissed }, at(1))
    expect(await changed()).toMatchObject({ score: false })
    await saveScore(workoutId, { ...score(circuit()), series: { ...series, next: 'Night watch' } }, at(2))
    expect(await changed()).toMatchObject({ score: true })
    expect(await doneOf(workoutId)).toMatchObject({ ship: false })
    await saveScore(workoutId, score(circuit({ rounds: 2 })), at(3))
    expect(await changed()).toEqual({
      score: true,
      ties: false,
      footage: false,
      cut: false,
      look: false,
      framing: false,
      sound: false,
    })
    await save(workoutId, { stitches: [], version: at(1) })
    expect(await changed()).toEqual({
      score: true,
      ties: true,
      footage: false,
      cut: false,
      look: false,
      framing: false,
      sound: false,
    })
    await filmed(workoutId, 'second.mp4', { replaces: footageId })
    expect(await changed()).toEqual({
      score: true,
      ties: false,
      footage: true,
      cut: false,
      look: false,
      framing: false,
      sound: false,
    })
    await takeIntoReel(footageId)
    expect(await changed()).toMatchObject({ ties: true, footage: false })
  })
})

describe('the mix', () => {
  it('is kept with the workout, whole until somebody changes it', async () => {
    const { createWorkout, saveSetting, findWorkout } = await parts()
    const id = await createWorkout(score(circuit()))
    expect((await findWorkout(id)).mix).toEqual(USUAL_MIX)
    const quiet = {
      voice: 0.4,
      cueLu: -3,
      cuesOn: false,
      duckDb: 6,
      target: 'quieter' as const,
      music: { pieces: [], lu: -9 },
    }
    await saveSetting(id, 'mix', quiet)
    expect((await findWorkout(id)).mix).toEqual(quiet)
    await expect(saveSetting('00000000-0000-0000-0000-000000000000', 'mix', USUAL_MIX)).rejects.toMatchObject({
      code: 'not-found',
    })
  })
})

describe('looks with a name', () => {
  it('are kept once for each name, and told by name', async () => {
    const { keepLook, namedLooks, forgetLook, sql } = await parts()
    await keepLook('Season two', { ...USUAL_LOOK, look: 'keel' })
    await keepLook('Across the room', { ...USUAL_LOOK, look: 'slate', size: 1.4 })
    await keepLook('Season two', { ...USUAL_LOOK, look: 'ribbon' })
    expect((await namedLooks()).map(({ name, look }) => [name, look.look])).toEqual([
      ['Across the room', 'slate'],
      ['Season two', 'ribbon'],
    ])
    await sql()`update looks set look = '{"look": "poster"}' where name = 'Season two'`
    expect(await namedLooks()).toHaveLength(1)
    await forgetLook('Across the room')
    expect(await namedLooks()).toEqual([])
  })
})

describe('music', () => {
  const file = (name: string, ...args: string[]): string => {
    const path = join(home, name)
    execFileSync('ffmpeg', ['-v', 'error', '-y', ...args, path])
    return path
  }
  it('is kept without the silence before it, on two channels, and told with its length', async () => {
    const { keepMusic, knownMusic, musicFile } = await parts()
    const path = file('late.mp3', ...['-f', 'lavfi', '-i', 'sine=f=220:d=3', '-af', 'adelay=700:all=1'])
    const piece = await keepMusic('Slow water', createReadStream(path))
    expect(Math.abs(piece.ms - 3000)).toBeLessThan(60)
    expect(await knownMusic()).toEqual([piece])
    const { path: kept } = await musicFile(piece.hash)
    expect(kept.endsWith(piece.hash)).toBe(true)
    const samples = samplesOf(kept)
    // It begins with its first sound.
    expect(Math.max(...samples.subarray(0, 480).map(Math.abs))).toBeGreaterThan(0.05)
  })
  it('is nothing where there is no sound, and no longer than half an hour', async () => {
    const { keepMusic } = await parts()
    const silent = file('silent.wav', ...['-f', 'lavfi', '-i', 'anullsrc=d=4'])
    const noSound = join(home, 'no-sound.wav')
    writeFileSync(noSound, 'no sound at all')
    for (const path of [noSound, silent, '/dev/null'])
      await expect(keepMusic('Nothing', createReadStream(path))).rejects.toMatchObject({ code: 'no-music' })
    const long = file('long.flac', ...['-f', 'lavfi', '-i', 'sine=f=220:d=1900:r=8000'])
    await expect(keepMusic('Long', createReadStream(long))).rejects.toMatchObject({ code: 'music-too-long' })
  })
  it('stays while a workout plays it, and is swept from the store when nobody names it', async () => {
    const { knownMusic, forgetMusic, musicFile, musicFiles, createWorkout, saveSetting, tidy } = await parts()
    const [piece] = await knownMusic()
    const id = await createWorkout(score(circuit()))
    await saveSetting(id, 'mix', { ...USUAL_MIX, music: { pieces: [piece!], lu: -12 } })
    await expect(forgetMusic(piece!.hash)).rejects.toMatchObject({ code: 'music-in-use' })
    const { path } = await musicFile(piece!.hash)
    const later = Date.now() + 48 * 3_600_000
    expect((await tidy({ dry: true, nowMs: later })).map((swept) => swept.path)).not.toContain(path)
    await saveSetting(id, 'mix', USUAL_MIX)
    await forgetMusic(piece!.hash)
    expect((await tidy({ nowMs: later })).map((swept) => swept.path)).toContain(path)
    expect(existsSync(path)).toBe(false)
    await expect(musicFiles([piece!])).rejects.toMatchObject({ code: 'music-gone' })
    await expect(musicFile(piece!.hash)).rejects.toMatchObject({ code: 'not-found' })
  })
})
