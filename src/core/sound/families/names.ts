// The names of the sound families, apart so that settings need not know how they sound.
export const FAMILY_NAMES = ['bell', 'kettle', 'rope', 'hull'] as const
export type FamilyName = (typeof FAMILY_NAMES)[number]
