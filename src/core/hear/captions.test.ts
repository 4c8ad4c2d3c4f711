import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ofKind } from '../evidence'
import { Problem } from '../problem'
import { readCaptions } from './captions'

const heard = async (text: string) =>
  ofKind(await readCaptions(text), 'caption').map(({ atMs, word, strength }) => [
    Math.round(atMs),
    word,
    strength >= 0.5,
  ])

describe('captions', () => {
  it('of WebVTT with times of words give calls where the word is', async () => {
    const text = `WEBVTT

NOTE made up

00:10.000 --> 00:14.000
three <00:00:11.000>two <00:00:12.000>one <00:00:13.000>go

00:43.500 --> 00:45.000
<v Coach>And rest.
`
    expect(await heard(text)).toEqual([
      [13_000, 'work', true],
      [expect.closeTo(43_900, -3), 'rest', true],
    ])
  })
  it('of SRT are read too, with commas and returns', async () => {
    const text =
      '1\r\n00:00:05,000 --> 00:00:06,000\r\nReady? Go!\r\n\r\n2\r\n00:00:45,000 --> 00:00:46,000\r\nTake a break.\r\n'
    expect((await heard(text)).map(([, word]) => word)).toEqual(['work', 'rest'])
  })
  it('have a change where what leads to its call begins, whatever stops stand in it', async () => {
    const text = `WEBVTT

00:10.000 --> 00:13.000
three <00:00:11.000>two <00:00:12.000>one

00:13.000 --> 00:15.000
<00:00:13.000>that's <00:00:13.400>it, <00:00:14.000>rest

00:30.000 --> 00:32.000
<00:00:30.000>okay! <00:00:31.500>Go
`
    expect(await heard(text)).toEqual([
      [13_000, 'rest', true],
      [31_500, 'work', true],
    ])
  })
  it('give numbers that were said, too', async () => {
    const text = 'WEBVTT\n\n00:05.000 --> 00:08.000\nForty-five seconds on, and go!\n'
    expect((await readCaptions(text)).map(({ kind }) => kind)).toEqual(['said', 'caption'])
  })
  it('do not take a word of a sentence for a call', async () => {
    const text =
      'WEBVTT\n\n00:05.000 --> 00:09.000\nlet your hips go back and stay low\n\n00:12.000 --> 00:15.000\nthe rest of you stays quite still\n'
    expect((await heard(text)).filter(([, , likely]) => likely)).toEqual([])
  })
  it.each([
    ['es', 'tres, dos, uno, ¡vamos!', 'work'],
    ['de', 'und Pause', 'rest'],
    ['fr', 'on y va', 'work'],
  ])('are understood in %s', async (_, line, word) => {
    expect(await heard(`WEBVTT\n\n00:05.000 --> 00:07.000\n${line}\n`)).toEqual([[expect.any(Number), word, true]])
  })
  it.each(['', 'WEBVTT', 'no times at all', '{"json": true}', '\u0000\u0001'])(
    'that are none are refused: %j',
    async (text) => {
      await expect(readCaptions(text)).rejects.toMatchObject({ code: 'captions-unreadable' })
    },
  )
  it('never give anything but calls in order of time, whatever the file holds', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(
          fc.constantFrom(
            'WEBVTT',
            '',
            '00:01.000 --> 00:02.000',
            '99:99:99,999 --> x',
            'go',
            '<00:00:01.000>',
            '<',
            '-->',
            'rest',
          ),
          { maxLength: 20 },
        ),
        async (lines) => {
          const calls = await readCaptions(lines.join('\n')).catch((error: unknown) => {
            if (error instanceof Problem) return []
            throw error
          })
          calls.forEach(({ atMs }, at) => {
            expect(atMs).toBeGreaterThanOrEqual(calls[at - 1]?.atMs ?? 0)
          })
        },
      ),
      { numRuns: 300 },
    )
  })

  it('are read in a time that grows as they do', async () => {
    const stamp = (ms: number): string => new Date(ms).toISOString().slice(11, 23)
    const captions = (count: number): string =>
      `WEBVTT\n\n${Array.from({ length: count }, (_, at) => `${stamp(at * 1500)} --> ${stamp(at * 1500 + 1500)}\npush the floor away`).join('\n\n')}\n`
    const timed = async (count: number): Promise<number> => {
      const text = captions(count)
      const from = performance.now()
      await readCaptions(text)
      return performance.now() - from
    }
    await timed(2000)
    const [few, many] = [await timed(5000), await timed(40_000)]
    // Eight times as many: quadratic would be sixty-four times as long.
    expect(many / few).toBeLessThan(24)
  }, 120_000)
})
