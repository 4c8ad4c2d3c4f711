// Words that people read in more than one way. Jivet builds every reading; which one a creator means decides what a
// title promises and what a new section starts with. The reason for each default stands beside it.
import { z } from 'zod'

export interface School {
  reading: string
  meaning: string
}
export interface DisputedWord {
  word: string
  readings: readonly School[]
  why: string
}

export const SCHOOLS = {
  tabata: {
    word: 'Tabata',
    readings: [
      { reading: 'strict', meaning: 'exactly 20 on and 10 off, eight times' },
      { reading: 'double', meaning: 'any work that is twice its rest' },
      { reading: 'burst', meaning: 'any short burst of work and rest' },
    ],
    why: 'strict, because a title that uses the word leads most viewers to expect four minutes of 20 on and 10 off',
  },
  emom: {
    word: 'EMOM',
    readings: [
      { reading: 'reps', meaning: 'a target at the top of each minute, and what is left of it is rest' },
      { reading: 'time', meaning: 'fixed work and rest that fill each minute' },
    ],
    why: 'by reps, because a viewer who is quicker or slower than the coach then still rests as much as was earned',
  },
  round: {
    word: 'Round',
    readings: [
      { reading: 'pass', meaning: 'once through all stations' },
      { reading: 'interval', meaning: 'one work interval' },
      { reading: 'thereAndBack', meaning: 'a climb and its descent together' },
    ],
    why: 'once through all stations, because that is what "3 rounds" in a description tells a viewer to do',
  },
} as const satisfies Record<string, DisputedWord>

export const readingsSchema = z.object({
  tabata: z.enum(['strict', 'double', 'burst']).default('strict'),
  emom: z.enum(['reps', 'time']).default('reps'),
  round: z.enum(['pass', 'interval', 'thereAndBack']).default('pass'),
})
export type Readings = z.infer<typeof readingsSchema>
