import fc from 'fast-check'
import ICAL from 'ical.js'
import { describe, expect, it } from 'vitest'
import { calendarSchema, writeCalendar, type CalendarSession } from './calendar'

const wish = calendarSchema.parse({ from: '2026-10-24T07:00', every: 2 })
const written = { name: 'Deck Hours', writtenMs: Date.UTC(2026, 9, 1) }

/** As a reader that is not ours has it. */
const readBack = (text: string) =>
  new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents('vevent').map((one) => new ICAL.Event(one))

describe('a series as a calendar', () => {
  it('has an event of its own for each time that a session is done', () => {
    const session = { id: 'deck', title: 'Deck Hours', lengthMs: 600_000 }
    const text = writeCalendar([session, session], { from: '2026-12-01T07:00', every: 1 }, { name: 'x', writtenMs: 0 })
    expect(text.match(/UID:.*/g)?.map((line) => line.trim())).toEqual(['UID:deck@jivet', 'UID:deck-2@jivet'])
  })
  it('has its sessions at the same time of day, as long as they are, whatever the clocks do meanwhile', () => {
    const sessions = ['one', 'two', 'three'].map((id) => ({ id, title: `Deck ${id}`, lengthMs: 754_400 }))
    const events = readBack(writeCalendar(sessions, wish, written))
    expect(events.map(({ uid, summary }) => [uid, summary])).toEqual(
      sessions.map(({ id, title }) => [`${id}@jivet`, title]),
    )
    // Summer time ends between the first and the second in many places.
    expect(events.map(({ startDate }) => String(startDate))).toEqual([
      '2026-10-24T07:00:00',
      '2026-10-26T07:00:00',
      '2026-10-28T07:00:00',
    ])
    expect(events.map(({ duration }) => duration.toSeconds())).toEqual([754, 754, 754])
  })
  it('is read back word for word: emoji, right-to-left, marks and names of 300 letters', () => {
    const title = fc.oneof(
      fc.constantFrom(
        'Lantern 🏮 reach',
        'דחיפה שמאלה',
        'Rope; pull, "slow" \\ fast',
        'x'.repeat(300),
        'é'.repeat(200),
      ),
      fc.string({ unit: 'grapheme', maxLength: 120 }),
    )
    // Readers trim nothing, but a line break in a name is told as one.
    const plain = (text: string): string => text.toWellFormed().replace(/[^\P{Cc}\n]/gu, ' ')
    fc.assert(
      fc.property(fc.array(fc.record({ title }), { maxLength: 5 }), (all) => {
        const sessions = all.map((one, at): CalendarSession => ({ ...one, id: `s${at}`, lengthMs: 60_000 }))
        const text = writeCalendar(sessions, wish, written)
        for (const line of text.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75)
        expect(readBack(text).map(({ summary }) => summary)).toEqual(sessions.map((one) => plain(one.title)))
      }),
    )
  })
  it('begins on a day that there is, and goes on by whole days', () => {
    for (const wrong of [{ from: '2026-13-01T07:00' }, { from: 'soon' }, { from: '2026-10-24T07:00', every: 0 }, {}])
      expect(calendarSchema.safeParse(wrong).success).toBe(false)
  })
})
