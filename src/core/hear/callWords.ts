// Words by which coaches call changes, as they stand in captions. A language is added by one more entry.
import type { Call } from '../evidence'

interface CallWords {
  calls: Record<Call, readonly string[]>
  /** Said along with a call; they mean nothing. */
  fillers: readonly string[]
  /** A count ends with these, last one first. */
  counts: readonly string[]
}

/** All in lower case and without marks; several words stand for themselves in a row. */
export const CALL_WORDS: Record<string, CallWords> = {
  en: {
    calls: {
      work: ['go', 'work', 'start', 'begin', "let's go", 'off we go', 'here we go'],
      rest: ['rest', 'stop', 'break', 'relax', 'pause', 'time', 'done'],
      ten: ['ten seconds', '10 seconds', 'ten to go', 'last ten'],
      next: ['next up', 'up next', 'coming up', 'next one'],
      half: ['halfway', 'half way', 'half of it'],
    },
    fillers: [
      'and',
      'now',
      'okay',
      'ok',
      'ready',
      'there',
      'a',
      'take',
      'have',
      'is',
      'it',
      "that's",
      'left',
      'more',
      'just',
    ],
    counts: ['one', 'two', 'three', 'four', 'five'],
  },
  es: {
    calls: {
      work: ['vamos', 'ya', 'empieza', 'empezamos', 'a trabajar', 'dale'],
      rest: ['descansa', 'descanso', 'descansar', 'para', 'pausa', 'alto', 'tiempo'],
      ten: ['diez segundos', '10 segundos'],
      next: ['el siguiente', 'lo siguiente', 'ahora viene'],
      half: ['mitad'],
    },
    fillers: ['y', 'ahora', 'venga', 'un', 'a', 'quedan', 'la', 'es', 'solo'],
    counts: ['uno', 'dos', 'tres', 'cuatro', 'cinco'],
  },
  de: {
    calls: {
      work: ['los', "los geht's", 'start', 'weiter', 'ab'],
      rest: ['pause', 'stopp', 'stop', 'ausruhen', 'schluss', 'fertig'],
      ten: ['zehn sekunden', '10 sekunden'],
      next: ['als nächstes', 'jetzt kommt'],
      half: ['halbzeit', 'die hälfte'],
    },
    fillers: ['und', 'jetzt', 'auf', 'noch', 'kurze', 'nur', 'eine'],
    counts: ['eins', 'zwei', 'drei', 'vier', 'fünf'],
  },
  fr: {
    calls: {
      work: ['allez', 'go', "c'est parti", 'on y va', 'partez', 'on commence'],
      rest: ['repos', 'stop', 'pause', 'récupère', 'terminé'],
      ten: ['dix secondes', '10 secondes'],
      next: ['ensuite', 'le prochain'],
      half: ['la moitié', 'à mi-chemin', 'mi-temps'],
    },
    fillers: ['et', 'maintenant', 'petite', 'encore', 'une', 'on', 'que', 'plus'],
    counts: ['un', 'deux', 'trois', 'quatre', 'cinq'],
  },
}
