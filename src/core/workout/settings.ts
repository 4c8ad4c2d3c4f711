// What is set of a workout beside its plan and its ties: each a document of its own, by its name.
import type { z } from 'zod'
import { cueWishesSchema } from '../cue/wishes'
import { cutWishesSchema } from '../cut/fit'
import { framingSchema } from '../cut/framing'
import { lookSchema } from '../look/looks/family'
import { thumbnailSchema } from '../look/thumbnail'
import { proofSchema } from '../proof/proof'
import { mixSchema } from '../sound/mix'

/** Every setting fills what it is not given. */
export const SETTINGS = {
  mix: mixSchema,
  look: lookSchema,
  framing: framingSchema,
  cues: cueWishesSchema,
  proof: proofSchema,
  thumbnail: thumbnailSchema,
  cut: cutWishesSchema,
} as const

export type SettingName = keyof typeof SETTINGS
export type Settings = { [Name in SettingName]: z.infer<(typeof SETTINGS)[Name]> }

export const SETTING_NAMES = Object.keys(SETTINGS) as SettingName[]

/** @param stored of each setting, as it was kept. @throws ZodError where one of them cannot be read. */
export const readSettingsOf = (stored: Record<SettingName, unknown>): Settings =>
  Object.fromEntries(SETTING_NAMES.map((name) => [name, SETTINGS[name].parse(stored[name])])) as unknown as Settings
