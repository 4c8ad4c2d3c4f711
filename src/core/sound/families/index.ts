// The sound families by name. Another family is another file, its name in `names` and a line here.
import type { Sound } from '../../cue/cue'
import type { Hertz, Ms } from '../../units'
import { bell } from './bell'
import { lengthMsOf, made, type Family } from './family'
import { hull } from './hull'
import { kettle } from './kettle'
import type { FamilyName } from './names'
import { rope } from './rope'

export const FAMILIES: Record<FamilyName, Family> = { bell, kettle, rope, hull }

export const soundMs = (family: FamilyName, sound: Sound): Ms => lengthMsOf(FAMILIES[family].notes[sound])

/** One sound as mono samples in -1..1. The onset is the first sample. */
export const soundOf = (family: FamilyName, sound: Sound, sampleRate: Hertz): Float32Array =>
  made(FAMILIES[family], sound, sampleRate)
