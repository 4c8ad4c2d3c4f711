// Calls in many more words than the lists of the demo have: opened, named and ended in the ways that coaches join. What
// the split "test" says is never said here.
import { pick } from '../demo/camera/random'
import { HEARD, UNHEARD, type Language } from '../demo/takes/wordings'
import type { Call } from '../src/core/evidence'

interface Parts {
  opened: readonly string[]
  ended: readonly string[]
  work: readonly string[]
  rest: readonly string[]
  ten: readonly string[]
  next: readonly string[]
  half: readonly string[]
}

const PARTS: Record<Exclude<Language, 'it'>, Parts> = {
  en: {
    opened: ['and', 'okay', 'all right', 'now', 'so', 'ready', 'right', 'one and', 'yes', 'and now', 'good'],
    ended: ['now', 'everybody', 'again', 'please', 'all of you', 'for me', 'together', 'there', 'here', 'friends'],
    work: [
      ...['go', 'work', 'start', 'begin', "let's go", "let's start", "let's move", "let's begin", 'move', 'get going'],
      ...['get started', 'off you go', 'start working', 'go for it', "let's do it", 'we work', 'we go', 'we start'],
      ...['on your feet', "let's get to work", 'back to work', 'start moving'],
    ],
    rest: [
      ...[
        'rest',
        'stop',
        'relax',
        'pause',
        'time',
        'done',
        'take a rest',
        'take a break',
        'break',
        'breathe',
        'hold it',
      ],
      ...["let's rest", 'we rest', 'we stop', "let's stop", 'put it down', 'shake it out', "that's time"],
      ...['you can rest', 'you can stop', 'a short break', 'a little rest', 'take a moment', 'stop moving', 'finished'],
    ],
    ten: [
      'ten seconds',
      'ten seconds left',
      'ten seconds to go',
      'ten left',
      'the last ten',
      'only ten seconds',
      'ten more',
    ],
    next: [
      'next up',
      'coming up',
      'next we have',
      'the next one is',
      'next move',
      'then comes',
      'after this',
      'next is',
    ],
    half: ['halfway', 'half way', "that's half", 'half done', 'you are halfway', 'half the time', 'past the middle'],
  },
  es: {
    opened: ['y', 'venga', 'bueno', 'ahora', 'listos', 'bien', 'y ahora', 'muy bien', 'a ver'],
    ended: ['ahora', 'todos', 'otra vez', 'por favor', 'conmigo', 'juntos', 'aquí', 'amigos'],
    work: [
      ...['vamos', 'empieza', 'dale', 'arriba', 'empezamos', 'trabaja', 'a trabajar', 'comenzamos', 'comienza', 'ya'],
      ...['trabajamos', 'en marcha', 'adelante', 'a moverse', 'muévete', 'vamos allá'],
    ],
    rest: [
      ...['descansa', 'descanso', 'para', 'pausa', 'alto', 'tiempo', 'descansamos', 'paramos', 'respira', 'suelta'],
      ...['un respiro', 'a descansar', 'se acabó', 'hasta aquí', 'afloja', 'toma aire'],
    ],
    ten: ['diez segundos', 'quedan diez', 'diez segundos más', 'los últimos diez', 'faltan diez segundos'],
    next: ['lo siguiente', 'después viene', 'ahora toca', 'el próximo', 'lo que sigue es', 'luego viene'],
    half: ['mitad', 'la mitad', 'a mitad de camino', 'ya llevas la mitad', 'media vuelta hecha'],
  },
  de: {
    opened: ['und', 'okay', 'so', 'jetzt', 'gut', 'fertig und', 'und jetzt', 'auf', 'alles klar'],
    ended: ['jetzt', 'alle', 'noch mal', 'bitte', 'mit mir', 'zusammen', 'hier', 'Leute'],
    work: [
      ...[
        'los',
        "los geht's",
        'Start',
        'weiter',
        'ab',
        'Arbeit',
        'anfangen',
        'wir fangen an',
        'wir starten',
        'beginnen',
      ],
      ...[
        'ran',
        'auf die Plätze, los',
        'wieder los',
        'arbeiten',
        'wir legen los',
        'loslegen',
        'Bewegung',
        "weiter geht's",
      ],
    ],
    rest: [
      ...['Pause', 'stopp', 'ausruhen', 'Schluss', 'fertig', 'Zeit', 'halt', 'absetzen', 'locker lassen', 'durchatmen'],
      ...[
        'wir machen Pause',
        'eine Pause',
        'Ende',
        'aufhören',
        'ausschütteln',
        'geschafft',
        'macht Pause',
        'ruh dich aus',
      ],
    ],
    ten: ['zehn Sekunden', 'noch zehn Sekunden', 'die letzten zehn Sekunden', 'noch zehn', 'zehn Sekunden noch'],
    next: ['als Nächstes', 'jetzt kommt', 'danach kommt', 'die nächste Übung ist', 'gleich kommt', 'weiter mit'],
    half: ['Hälfte', 'Halbzeit', 'die Hälfte', 'die halbe Zeit', 'halb geschafft', 'schon die Hälfte'],
  },
  fr: {
    opened: ['et', 'allez', 'bon', 'maintenant', 'prêts', 'bien', 'et maintenant', 'alors', 'très bien'],
    ended: ['maintenant', 'tout le monde', 'encore', "s'il vous plaît", 'avec moi', 'ensemble', 'ici', 'les amis'],
    work: [
      ...[
        'allez',
        "c'est parti",
        'go',
        'on y va',
        'partez',
        'on travaille',
        'commencez',
        'commence',
        'démarrez',
        'au travail',
      ],
      ...['on démarre', 'en avant', 'on bouge', 'on attaque', "c'est reparti", 'travaillez'],
    ],
    rest: [
      ...[
        'repos',
        'stop',
        'pause',
        "on s'arrête",
        'récupère',
        'terminé',
        'reposez-vous',
        'relâchez',
        'arrêtez',
        'soufflez',
      ],
      ...['on souffle', 'on récupère', 'une pause', "c'est fini", 'temps', 'on relâche', 'on se repose'],
    ],
    ten: ['dix secondes', 'encore dix secondes', 'plus que dix', 'les dix dernières secondes', 'il reste dix secondes'],
    next: ['ensuite', 'maintenant on a', 'le prochain', 'après', 'le suivant', 'puis on passe à'],
    half: ['la moitié', 'à mi-chemin', 'mi-temps', 'la moitié est faite', 'on a fait la moitié'],
  },
}

/** A call as somebody might say it. */
export function trainingCall(language: Exclude<Language, 'it'>, call: Call, random: () => number): string {
  const parts = PARTS[language]
  const kept = new Set(Object.values(UNHEARD[language]).flat().map(plain))
  for (;;) {
    if (random() < 0.4) return pick(HEARD[language][call], random)
    const named = pick(parts[call], random)
    const opened = random() < 0.45 ? `${pick(parts.opened, random)}${random() < 0.3 ? ',' : ''} ` : ''
    const text = `${opened}${named}${random() < 0.3 ? ` ${pick(parts.ended, random)}` : ''}`
    if (!kept.has(plain(text))) return text
  }
}

const plain = (text: string): string => text.toLowerCase().replaceAll(/[,.]/g, '')
