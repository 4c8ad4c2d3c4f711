// Every format Jivet knows. A new one is a file beside these and a line in each of the two lists.
import { z } from 'zod'
import type { Draft } from '../segment'
import { circuit, circuitSchema } from './circuit'
import type { Neighbours } from './format'
import { list, listSchema } from './list'
import { pause, pauseSchema } from './pause'
import { talk, talkSchema } from './talk'

export const sectionSchema = z.discriminatedUnion('format', [circuitSchema, talkSchema, pauseSchema, listSchema])
export type Section = z.infer<typeof sectionSchema>

/** The segments of one section, unplaced. */
export function expandSection(section: Section, around: Neighbours): Draft[] {
  switch (section.format) {
    case 'circuit': return circuit.expand(section, around)
    case 'talk': return talk.expand(section, around)
    case 'break': return pause.expand(section, around)
    case 'list': return list.expand(section, around)
  }
}

/** The section in words. */
export function describeSection(section: Section): string {
  switch (section.format) {
    case 'circuit': return circuit.describe(section)
    case 'talk': return talk.describe(section)
    case 'break': return pause.describe(section)
    case 'list': return list.describe(section)
  }
}

export const newSection = { circuit: circuit.defaults, talk: talk.defaults, break: pause.defaults, list: list.defaults }
