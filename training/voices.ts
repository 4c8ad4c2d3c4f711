// Who speaks where. No voice of the splits "tune" and "test" is heard in training.
import { pick } from '../demo/camera/random'
import type { Language } from '../demo/takes/wordings'
import type { Voice } from '../demo/takes/speech'

const DIALECTS: Record<Language, readonly string[]> = {
  en: ['en-us', 'en-gb', 'en-gb-scotland', 'en-029', 'en-gb-x-rp'],
  es: ['es', 'es-419'],
  de: ['de'],
  fr: ['fr', 'fr-ch'],
  it: [],
}
/** Mouths and throats of the formant synthesiser. */
const MOUTHS = [
  ...['m1', 'm2', 'm3', 'm4', 'm5', 'm7', 'f1', 'f2', 'f3', 'f5', 'Alex', 'Andrea', 'Annie', 'antonio', 'belinda'],
  ...['boris', 'caleb', 'david', 'Denis', 'ed', 'Gene', 'gustave', 'Hugo', 'john', 'linda', 'Mario', 'max', 'michel'],
  ...['pablo', 'quincy', 'rob', 'steph', 'zac', 'anika', 'klatt', 'klatt2', 'klatt6', 'sandro', 'victor', 'grandma'],
]
const NATURAL: readonly Voice[] = ['flite:kal', 'flite:awb', 'flite:kal16', 'festival:ked_diphone']

/** One of the voices that training hears. English coaches are more often the recorded voices than the formant ones. */
export function trainingVoice(language: Language, random: () => number): Voice {
  if (language === 'en' && random() < 0.45) return pick(NATURAL, random)
  return `espeak:${pick(DIALECTS[language], random)}+${pick(MOUTHS, random)}:${pick([130, 150, 170, 190], random)}:${pick([30, 50, 70], random)}`
}
