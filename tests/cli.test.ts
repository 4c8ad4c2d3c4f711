// The headless command as scripts call it: real files, real exit codes, and the beep pass held against the truth file.
import { execFileSync, spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { basename, join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { ofKind, type Evidence } from '../src/core/evidence'
import type { SyncResult } from '../src/core/align/sync'
import { probe, samplesOf } from './e2e/decode'
import { FILM, FILMS, truthOf } from './e2e/jivet'

const PLAN = 'demo/deck-hours.jivet.json'
const folder = mkdtempSync(join(tmpdir(), 'jivet-cli-'))
afterAll(() => rmSync(folder, { recursive: true }))

function jivet(...args: string[]): { code: number | null; out: string; err: string } {
  const { status, stdout, stderr } = spawnSync('bin/jivet', args, { encoding: 'utf8', maxBuffer: 2 ** 28 })
  return { code: status, out: stdout, err: stderr }
}

const write = (name: string, content: string | Buffer): string => {
  const path = join(folder, name)
  writeFileSync(path, content)
  return path
}

describe('expand and export', () => {
  it('gives segments and totals as JSON, and a table that expands to the same', () => {
    const { code, out } = jivet('expand', PLAN, '--json')
    const plan = JSON.parse(out) as { totalMs: number; workMs: number; restMs: number; segments: { id: string }[] }
    expect(code).toBe(0)
    expect([plan.totalMs, plan.workMs, plan.restMs, plan.segments.length]).toEqual([200_000, 120_000, 55_000, 14])
    const table = write('plan.csv', jivet('expand', PLAN, '--csv').out)
    expect(JSON.parse(jivet('expand', table, '--json').out)).toMatchObject({
      totalMs: 200_000,
      workMs: 120_000,
      restMs: 55_000,
    })
  })
  it('writes a plan in any of its formats, and reads each again', () => {
    const total = (plan: string): number =>
      (JSON.parse(jivet('expand', plan, '--json').out) as { totalMs: number }).totalMs
    let plan: string = PLAN
    for (const ending of ['score.txt', 'jivet.json', 'csv', 'jivet.json']) {
      const next = join(folder, `converted.${ending}`)
      expect(jivet('convert', plan, next)).toMatchObject({ code: 0, err: '' })
      expect(total(next)).toBe(200_000)
      plan = next
    }
    expect(jivet('convert', PLAN, join(folder, 'converted.mp4')).code).toBe(2)
    expect(jivet('--version').out).toMatch(/^jivet \d+\.\d+\.\d+\n$/)
  })
  it('fills what a workout file leaves out, and refuses by its name what it does not know', () => {
    const file = (station: object): string =>
      write(
        'short.jivet.json',
        JSON.stringify({
          ...{ format: 'jivet-workout', version: 1 },
          score: {
            title: 'Deck Hours',
            sections: [
              { format: 'circuit', name: 'Main', rounds: 2, workMs: 30_000, restMs: 10_000, stations: [station] },
            ],
          },
        }),
      )
    expect(jivet('expand', file({ label: 'Jug lift', weight: { amount: 4, unit: 'kg' } })).out).toContain('Jug lift')
    const { code, err } = jivet('expand', file({ label: 'Jug lift', wieght: { amount: 4, unit: 'kg' } }))
    expect([code, err]).toEqual([1, expect.stringContaining('there is no field "wieght" (is "weight" meant?)')])
    expect(jivet('expand', file({ label: 'Jug lift', effort: 9 })).code).toBe(1)
  })
  it('exports captions, chapters and a table', () => {
    expect(jivet('export', PLAN, '--as', 'vtt').out).toMatch(/^WEBVTT\n\n/)
    expect(jivet('export', PLAN, '--as', 'chapters').out).toMatch(/^0:00 Welcome aboard\n0:17 Main, Round 1 of 2\n/)
    expect(jivet('export', PLAN, '--as', 'csv').out.split('\n')[0]).toBe('section,round,kind,label,side,seconds')
  })
  it('tells what viewers read, state by state without a gap in its work', () => {
    interface State {
      [field: string]: unknown
      fromMs: number
      untilMs: number
      segmentId: string
      count: { value: number; direction: string } | null
    }
    const { states } = JSON.parse(jivet('overlay', PLAN, '--json').out) as { states: State[] }
    const work = states.filter(({ segmentId }) => segmentId === 'main/r1/s1/work')
    expect(work[0]).toMatchObject({
      ...{ count: { value: 20, direction: 'down' }, label: 'Jug lift', side: 'left', reps: null, block: 'Main' },
      ...{ counters: 'Round 1 of 2 / Station 1 of 3', next: 'Rest', nextMs: 10_000 },
    })
    expect(work[0]?.lines).toContain('Easier: Half-full jug')
    expect(work.at(-1)).toMatchObject({ count: { value: 1 } })
    for (const [at, { fromMs }] of work.entries()) if (at) expect(fromMs).toBe(work[at - 1]?.untilMs)
    expect(jivet('overlay', PLAN).out).toMatch(/ Jug lift {2}left {2}Round 1 of 2/)
  })
  it('draws the plan itself where there is no footage, to the frame as long as planned', () => {
    const plan = write(
      'companion.score.txt',
      'talk Welcome: about 3\ncircuit Main: 1 round, 6 on, 4 off, last rest kept\n  Jug lift (sides none)\n',
    )
    const out = join(folder, 'companion.mp4')
    expect(jivet('render', plan, '--out', out, '--look', 'lantern').code).toBe(0)
    expect(probe(out)).toMatchObject({ video: { frames: 13 * 30, width: 1280, height: 720, rate: '30/1' } })
    const samples = samplesOf(out)
    // The first second of work begins with its tone; the talk before it has none.
    const loudest = (fromS: number, toS: number): number =>
      samples.slice(fromS * 48_000, toS * 48_000).reduce((most, one) => Math.max(most, Math.abs(one)), 0)
    expect([loudest(0.2, 2.8) < 0.02, loudest(3, 3.3) > 0.2]).toEqual([true, true])
  }, 300_000)
  it('names the looks that there are where it is asked for another', () => {
    const { code, err } = jivet('render', PLAN, PLAN, '--out', join(folder, 'x.mp4'), '--look', 'poster')
    expect([code, err.split('\n')[0]]).toEqual([
      2,
      'jivet: --look poster is not known; known are linocut, porthole, ribbon, keel, slate, lantern',
    ])
  })
  it.each([
    ['flac', 'flac'],
    ['mp3', 'mp3'],
  ])('writes the cue track as %s, as long as the WAV', (ending, codec) => {
    const out = join(folder, `track.${ending}`)
    expect(jivet('track', PLAN, '--out', out).code).toBe(0)
    const told = execFileSync('ffprobe', [
      '-v',
      'error',
      '-show_entries',
      'format=duration:stream=codec_name',
      '-of',
      'json',
      out,
    ])
    const { streams, format } = JSON.parse(told.toString()) as {
      streams: { codec_name: string }[]
      format: { duration: string }
    }
    expect(streams[0]?.codec_name).toBe(codec)
    const { totalMs } = JSON.parse(jivet('expand', PLAN, '--json').out) as { totalMs: number }
    expect(Math.abs(Number(format.duration) * 1000 - totalMs - 1000)).toBeLessThan(60)
  })
  it('writes the cue track as a WAV that ffprobe reads', () => {
    const out = join(folder, 'track.wav')
    expect(jivet('track', PLAN, '--out', out).code).toBe(0)
    const facts = execFileSync('ffprobe', [
      '-v',
      'error',
      '-show_entries',
      'stream=codec_name,sample_rate,channels,duration',
      '-of',
      'csv=p=0',
      out,
    ])
      .toString()
      .trim()
    expect(facts).toBe('pcm_s16le,48000,1,201.000000')
  })
})

describe('the three kinds of plan', () => {
  const typed = write(
    'roof.score.txt',
    'circuit Main: 3 rounds, 40 on, 10 off\n  Keel hold; Jug lift (sides none)\nfinisher Last: 1 round\n  10 Deck-rail squat\n',
  )
  it('expand alike, with what is only estimated marked down to the table', () => {
    // 3 x (40 + 10 + 40 + 10) s, and 10 reps of 3 s.
    const plan = JSON.parse(jivet('expand', typed, '--json').out) as {
      totalMs: number
      estimated: boolean
      segments: { estimated: boolean; reps: number | null }[]
    }
    expect([plan.totalMs, plan.estimated, plan.segments.at(-1)]).toMatchObject([
      330_000,
      true,
      { estimated: true, reps: 10 },
    ])
    expect(plan.segments[0]).not.toHaveProperty('origin')
    const table = jivet('expand', typed, '--csv').out
    expect(table.split('\n')[0]).toBe('section,round,kind,label,side,seconds,estimated')
    expect(JSON.parse(jivet('expand', write('roof.csv', table), '--json').out)).toMatchObject({
      totalMs: 330_000,
      estimated: true,
    })
    expect(jivet('expand', typed).out).toMatch(/~0:30 {2}work {3}Deck-rail squat x 10\ntotal about 5:30/)
  })
  it('are checked alike, and an error makes the code 1', () => {
    const { code, out } = jivet('check', typed, '--json')
    const { findings } = JSON.parse(out) as {
      findings: { check: string; what: string; severity: string; mend: string | null }[]
    }
    expect(code).toBe(0)
    expect(findings.find((one) => one.check === 'rest')).toMatchObject({
      mend: 'Make it 12 s',
      what: expect.stringMatching(/needs about 11.8 s: stand up 4, take water jug 4/) as string,
    })
    const tooTight = write(
      'tight.score.txt',
      'circuit Main: 3 rounds, 40 on, 4 off\n  Keel hold; Jug lift (sides none)\n',
    )
    expect(jivet('check', tooTight)).toMatchObject({
      code: 1,
      out: expect.stringMatching(/^error {4}main\/r1\/s1\/rest/) as string,
    })
    expect(jivet('check', write('tight.csv', jivet('expand', tooTight, '--csv').out)).code).toBe(1)
    expect(jivet('check', PLAN).code).toBe(0)
  })
})

describe('the beep pass', () => {
  const sync = (film: string): SyncResult => JSON.parse(jivet('sync', PLAN, film, '--json').out) as SyncResult
  const marked = (film: string) => truthOf(film).boundaries.filter((one) => one.footageMs > 0)

  it('ties every boundary of the beeped film within 40 ms of the truth', () => {
    const { stitches, missing, summary } = sync(FILM)
    expect(missing).toEqual([])
    for (const boundary of marked(FILM)) {
      const stitch = stitches.find((one) => one.segmentId === boundary.segmentId && one.edge === boundary.edge)
      expect(Math.abs((stitch?.footageMs ?? Infinity) - boundary.footageMs), boundary.segmentId).toBeLessThanOrEqual(40)
    }
    expect(summary.driftPpm).toBeGreaterThan(0)
  })
  it('reports as missing, not as found, what lies where the beeps were removed', () => {
    const film = join(FILMS, 'deck-hours-gap.mp4')
    const { stitches, missing } = sync(film)
    const silent = marked(film)
      .filter((one) => one.silent)
      .map((one) => one.segmentId)
    expect(silent.length).toBeGreaterThanOrEqual(3)
    expect(missing).toEqual(silent)
    for (const boundary of marked(film).filter((one) => !one.silent)) {
      const stitch = stitches.find((one) => one.segmentId === boundary.segmentId)
      expect(Math.abs((stitch?.footageMs ?? Infinity) - boundary.footageMs), boundary.segmentId).toBeLessThanOrEqual(40)
    }
    expect(stitches).toHaveLength(marked(film).length - silent.length)
  })
})

describe('the record of the floor', () => {
  /** Session time of footage time 0. */
  const AHEAD_MS = 10_000
  const key = (number: number): string => `00000000-0000-4000-8000-${String(number).padStart(12, '0')}`
  const { score } = JSON.parse(readFileSync(PLAN, 'utf8')) as { score: unknown }
  const { boundaries, durationMs } = truthOf(FILM)
  const at = (id: string): number =>
    Math.round((boundaries.find(({ segmentId }) => segmentId === id)?.footageMs ?? 0) + AHEAD_MS)
  const places = boundaries.map(({ segmentId }) => segmentId)
  const recordOf = (plan: unknown): string =>
    JSON.stringify({
      ...{ format: 'jivet-floor-log', version: 1, openedAt: '2026-11-26T10:00:00.000Z', rehearsal: false, score: plan },
      events: [
        { kind: 'start', key: key(1), atMs: AHEAD_MS - 5000, countInMs: 5000 },
        { kind: 'next', key: key(2), atMs: at('main/lead'), on: 0 },
        { kind: 'open', key: key(3), atMs: at('main/r1/break') + 1000, on: places.indexOf('main/r1/break') },
        { kind: 'next', key: key(4), atMs: at('main/r2/s1/work'), on: places.indexOf('main/r1/break') },
        { kind: 'end', key: key(5), atMs: durationMs + AHEAD_MS },
      ],
    })

  it('gives every change, and what was heard only where it began', () => {
    const { out } = jivet('sync', PLAN, FILM, '--log', write('session.floor.json', recordOf(score)), '--json')
    const { stitches, log } = JSON.parse(out) as SyncResult & { log: { fit: string; gone: string[] } }
    expect(log).toEqual({ fit: 'placed', gone: [] })
    expect(stitches.map(({ segmentId }) => segmentId)).toEqual(places)
    for (const { segmentId, footageMs, evidence } of stitches) {
      expect(evidence[0]).toBe('log')
      expect(Math.abs(footageMs - at(segmentId) + AHEAD_MS), segmentId).toBeLessThan(60)
    }
  })

  it('is refused where it is none, or of another plan', () => {
    expect(jivet('sync', PLAN, FILM, '--log', write('not.floor.json', '{"format":"x"}'))).toMatchObject({
      code: 1,
      err: expect.stringMatching(/not\.floor\.json: .*floor log is not right at format/) as string,
    })
    const other = write('other.score.txt', 'circuit Keel: 1 round, 20 on\n  Keel hold\n')
    expect(jivet('sync', other, FILM, '--log', write('session.floor.json', recordOf(score)))).toMatchObject({
      code: 1,
      err: expect.stringMatching(/session\.floor\.json: .*of another plan/) as string,
    })
  })
})

describe('movement', () => {
  it('is seen to begin where work does, in a film whose truth is known', () => {
    const { evidence } = JSON.parse(jivet('hear', FILM, '--json').out) as { evidence: Evidence[] }
    const begun = ofKind(evidence, 'motion').filter(({ begins }) => begins)
    const work = truthOf(FILM).boundaries.filter(({ segmentId }) => segmentId.endsWith('/work'))
    const seen = work.filter(({ footageMs }) => begun.some(({ atMs }) => Math.abs(atMs - footageMs) < 1000))
    expect(work).toHaveLength(6)
    // The boat twist is a quiet move.
    expect(seen.length).toBeGreaterThanOrEqual(4)
    expect(begun.length - seen.length).toBeLessThanOrEqual(2)
  })
})

describe('a session in two files', () => {
  it('is tied in both, with what was not filmed between them left out', () => {
    const { boundaries } = truthOf(FILM)
    const middle = boundaries.findIndex(({ footageMs }) => footageMs > (boundaries.at(-1)?.footageMs ?? 0) / 2)
    // Between whole groups of pictures of 2 s, which are copied as they are.
    const cutMs = Math.floor(((boundaries[middle]?.footageMs ?? 0) - 4500) / 2000) * 2000,
      goesOnMs = cutMs + 2000
    const part = (name: string, ...where: string[]): string => {
      const file = join(folder, name)
      execFileSync('ffmpeg', ['-v', 'error', '-y', ...where, '-c', 'copy', file])
      return file
    }
    const one = part('one.mp4', '-i', FILM, '-to', String(cutMs / 1000)),
      two = part('two.mp4', '-ss', String(goesOnMs / 1000), '-i', FILM)
    const { stitches } = JSON.parse(jivet('sync', PLAN, one, two, '--json').out) as {
      stitches: { segmentId: string; edge: string; footage: number; footageMs: number }[]
    }
    expect(new Set(stitches.map(({ footage }) => footage))).toEqual(new Set([0, 1]))
    for (const { segmentId, edge, footage, footageMs } of stitches) {
      const truth = boundaries.find((boundary) => boundary.segmentId === segmentId && boundary.edge === edge)
      expect(Math.abs(footageMs + (footage ? goesOnMs : 0) - (truth?.footageMs ?? Infinity)), segmentId).toBeLessThan(
        60,
      )
    }
    expect(stitches.length).toBeGreaterThan(boundaries.length / 2)
  })
})

describe('a session in two files of which a round was not filmed', () => {
  const plan = write(
    'rounds.score.txt',
    'title Rounds\ncircuit Main: 2 rounds, 3 on, 2 off, last rest dropped\n  Jug lift\n',
  )
  const film = (name: string, seconds: number): string => {
    const path = join(folder, name)
    execFileSync('ffmpeg', [
      ...['-v', 'error', '-y', '-f', 'lavfi', '-i', `testsrc=s=320x180:r=25:d=${seconds}`],
      ...['-f', 'lavfi', '-i', `sine=f=220:r=48000:d=${seconds}`, '-shortest', path],
    ])
    return path
  }
  const [one, two] = [film('round-one.mp4', 4), film('round-end.mp4', 2)]
  const ids = ['main/r1/s1/work', 'main/r1/s1/rest', 'main/r2/s1/work']
  // Work of 3.6 s over the border of the files, a rest of 2 s, and no second round.
  const at = [
    { footage: 0, footageMs: 400 },
    { footage: 1, footageMs: 0 },
    { footage: 1, footageMs: 2000 },
  ]
  const stitches = ids.map((segmentId, index) => ({ segmentId, edge: 'start', ...at[index] }))
  const sync = write('rounds.json', JSON.stringify({ stitches, summary: { footageMs: 6000 } }))
  interface Cut {
    outMs: number
    spans: { source: number | string; outMs: number; why: string }[]
    changes: { key: string; kind: string }[]
  }
  it.each([
    ['follow', 6000, []],
    ['score', 5000, ['outside', 'shortened', 'left-out']],
    ['fill', 8000, ['outside', 'shortened', 'reused']],
  ])('is cut by --fit %s to %i ms, and rendered to the frame', (fit, outMs, kinds) => {
    const { code, out } = jivet('cut', plan, one, two, '--sync', sync, '--fit', fit, '--json')
    const cut = JSON.parse(out) as Cut
    expect([code, cut.outMs, cut.changes.map(({ kind }) => kind)]).toEqual([0, outMs, kinds])
    expect(new Set(cut.spans.map(({ source }) => source))).toEqual(new Set([0, 1]))
    const video = join(folder, `${fit}.mp4`)
    expect(jivet('render', plan, one, two, '--sync', sync, '--fit', fit, '--out', video).code).toBe(0)
    expect(probe(video).video).toMatchObject({ frames: outMs / 40, width: 320, height: 180, rate: '25/1' })
    expect(Math.abs(probe(video).audio.durationMs - outMs)).toBeLessThan(25)
    // What it was made with stands in it: nothing needs to be told to whoever checks it.
    expect(jivet('verify', video, plan)).toMatchObject({ code: 0, err: '' })
  })
  it('is cut as an edit list has it, and rendered to the frame', () => {
    const event = (number: number, name: string, codes: string): string =>
      `00${number}  AX       V     C        ${codes}\n* FROM CLIP NAME: ${basename(name)}\n`
    const list = write(
      'rounds.edl',
      event(1, one, '00:00:00:10 00:00:02:00 01:00:00:00 01:00:01:15') +
        event(2, two, '00:00:00:05 00:00:01:17 01:00:01:15 01:00:03:02'),
    )
    const call = [plan, one, two, '--sync', sync, '--edits', list]
    const { code, out } = jivet('cut', ...call, '--json')
    const cut = JSON.parse(out) as Cut
    expect([code, cut.outMs]).toEqual([0, 3080])
    expect([cut.spans[0], cut.spans.at(-1)]).toMatchObject([{ source: 0, outMs: 0 }, { source: 1 }])
    const video = join(folder, 'edited.mp4')
    expect(jivet('render', ...call, '--out', video).code).toBe(0)
    expect(probe(video).video.frames).toBe(77)
    expect(jivet('verify', video, plan)).toMatchObject({ code: 0, err: '' })
    const wrong = jivet('cut', plan, one, two, '--sync', sync, '--edits', write('none.edl', 'TITLE: none\n'))
    expect([wrong.code, wrong.err]).toEqual([1, expect.stringContaining('none.edl: There is no cut in this edit list')])
  })
})

describe('what is wrong is said in one line', () => {
  const text = write('note.txt', 'A kettle is not a video.\n')
  const empty = write('empty.mp4', '')
  const typo = write('typo.score.txt', 'title Slip\ncircut Main: 3 rounds\n')
  const badTable = write('bad.csv', 'section,round,kind,label,side,seconds\nMain,1,work,Jug lift,,-5\n')
  const asFolder = join(folder, 'folder.wav')
  mkdirSync(asFolder)
  const asPipe = join(folder, 'pipe.wav')
  execFileSync('mkfifo', [asPipe])
  const foreign = { segmentId: 'keel/r1/s1/work', edge: 'start', footageMs: 0 }
  const otherSync = write('other.json', JSON.stringify({ stitches: [foreign], summary: { footageMs: 90_000 } }))
  const third = { segmentId: 'main/lead', edge: 'start', footage: 2, footageMs: 0 }
  const otherReel = write('other-reel.json', JSON.stringify({ stitches: [third], summary: { footageMs: 90_000 } }))
  it.each([
    [['expand'], 2, /expected 1 file/],
    [['dance', PLAN], 2, /no command "dance"/],
    [['expand', PLAN, '--frob'], 2, /--frob/],
    [['export', PLAN, '--as', 'papyrus'], 2, /papyrus/],
    [['render', PLAN, FILM], 2, /--out/],
    [['cut', PLAN, FILM, '--fit', 'tight'], 2, /--fit tight is not known; known are follow, score, fill/],
    [
      ['cut', PLAN, FILM, '--sync', otherReel],
      1,
      /other-reel\.json: This ties to file 3 of the footage, and there is 1/,
    ],
    [['expand', 'nowhere.csv'], 1, /nowhere\.csv: There is no such file/],
    [['expand', badTable], 1, /bad\.csv: line 2: Found "-5" in seconds/],
    [['expand', typo], 1, /typo\.score\.txt: line 2: No section starts with "circut"/],
    [['check', write('empty.score.txt', '# nothing yet\n')], 1, /line 1: No section was found/],
    [['expand', write('plan.md', '# plan')], 1, /none of \.jivet\.json, \.score\.txt and \.csv/],
    [['render', PLAN, FILM, '--out', join(folder, 'video.txt')], 2, /has to end in \.mp4/],
    [['track', PLAN, '--out', join(folder, 'track')], 2, /has to end in \.wav/],
    [['track', PLAN, '--out', asFolder], 1, /no regular file/],
    [['track', PLAN, '--out', asPipe], 1, /no regular file/],
    [
      ['cut', PLAN, FILM, '--sync', write('bare.json', '{"stitches":[],"summary":{"footageMs":90000}}')],
      1,
      /bare\.json: This file has no ties/,
    ],
    [['export', PLAN, '--as', 'vtt', '--sync', otherSync], 1, /another plan, .*"keel\/r1\/s1\/work"/],
    [['sync', PLAN], 2, /expected 2 files or more/],
    [['sync', PLAN, FILM, FILM, '--captions', text], 2, /captions go with one footage/],
    [['sync', PLAN, FILM, '--captions', text], 1, /note\.txt: No line of captions/],
    [['sync', PLAN, FILM, '--captions', 'nowhere.vtt'], 1, /nowhere\.vtt: There is no such file/],
    [['hear', text], 1, /not a video/],
    [['hear', empty], 1, /empty/],
    [['hear', 'nowhere.mp4'], 1, /no such file/],
  ])('%j', (args, code, message) => {
    const result = jivet(...args)
    expect(result.code).toBe(code)
    expect(result.err.split('\n')[0]).toMatch(message)
    expect(result.err).not.toMatch(/\n\s+at /)
    if (code === 1) expect(result.err.trim().split('\n')).toHaveLength(1)
  })
  it('leaves no half-written file when the render fails', () => {
    const out = join(folder, 'never.mp4')
    expect(jivet('render', PLAN, text, '--out', out).code).toBe(1)
    expect(() => readFileSync(out)).toThrow()
  })
  it.each(['SIGTERM', 'SIGINT'] as const)('takes back what it had begun when it gets %s', async (signal) => {
    const out = join(folder, 'stopped.mp4')
    const tmp = join(folder, `tmp-${signal}`)
    mkdirSync(tmp)
    const env = { ...process.env, TMPDIR: tmp }
    const command = spawn('bin/jivet', ['render', PLAN, FILM, '--out', out], { env, stdio: 'ignore' })
    const ended = once(command, 'exit')
    const pictures = (): string[] => readdirSync(tmp).filter((name) => name.startsWith('jivet-'))
    while (!pictures().length) await new Promise((done) => setTimeout(done, 50))
    command.kill(signal)
    expect(((await ended) as [number | null, string | null])[1]).toBe(signal)
    expect([pictures(), existsSync(out), existsSync(`${out}.part.mp4`)]).toEqual([[], false, false])
    // What it started is ended by the kernel once it is gone, which takes a moment.
    const left = (): string => spawnSync('pgrep', ['-f', `${out}|${tmp}`]).stdout.toString()
    await expect.poll(left, { timeout: 10_000 }).toBe('')
  })
  it('is code 3 when the machine lacks ffmpeg', () => {
    const { status } = spawnSync(process.execPath, ['--import', 'tsx', 'bin/cli.ts', 'hear', FILM], {
      env: { ...process.env, PATH: '/nowhere' },
    })
    expect(status).toBe(3)
  })
})
