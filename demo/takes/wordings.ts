// What simulated coaches say, by language. Calls and sentences of the split "test" are said nowhere else: nothing that
// is trained or tuned has heard them.

/** Those whose calls are trained. */
export const LANGUAGES = ['en', 'es', 'de', 'fr'] as const
/** Italian is one of the many that nothing was trained on. */
export type Language = (typeof LANGUAGES)[number] | 'it'

export interface Wordings {
  work: readonly string[]
  rest: readonly string[]
  ten: readonly string[]
  next: readonly string[]
  half: readonly string[]
  /** Whatever else is said: about the moves, and with words of the calls in another sense. */
  chat: readonly string[]
}

/** Counted down before a change, and up in a set. */
export const NUMBERS: Record<Language, readonly string[]> = {
  en: ['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'],
  es: ['uno', 'dos', 'tres', 'cuatro', 'cinco', 'seis', 'siete', 'ocho', 'nueve', 'diez'],
  de: ['eins', 'zwei', 'drei', 'vier', 'fünf', 'sechs', 'sieben', 'acht', 'neun', 'zehn'],
  it: ['uno', 'due', 'tre', 'quattro', 'cinque', 'sei', 'sette', 'otto', 'nove', 'dieci'],
  fr: ['un', 'deux', 'trois', 'quatre', 'cinq', 'six', 'sept', 'huit', 'neuf', 'dix'],
}

const ITALIAN: Wordings = {
  work: ['via', 'andiamo', 'e via'],
  rest: ['riposo', 'e riposo', 'fermi'],
  ten: ['dieci secondi'],
  next: ['adesso tocca a'],
  half: ['siamo a metà'],
  chat: [
    'Tieni la brocca vicino a te.',
    'Respira mentre sali, spalle basse.',
    'Molto bene, ci siamo quasi.',
    'Le ginocchia sopra i piedi.',
    'Piano, con la schiena lunga.',
    'Guarda davanti a te.',
  ],
}

export const HEARD: Record<Language, Wordings> = {
  it: ITALIAN,
  en: {
    work: ['go', 'work', 'start', "let's go", 'and go', 'begin', 'here we go', 'and start', 'go, go', 'ready, go'],
    rest: ['rest', 'stop', 'and rest', 'take a break', 'and stop', 'relax', 'time', 'pause', "that's it, rest", 'done'],
    ten: ['ten seconds', 'ten seconds left', 'ten to go', 'last ten seconds', 'ten more seconds'],
    next: ['next up', 'next is the jug lift', 'coming up next', 'up next', 'next one is the keel hold'],
    half: ['halfway', 'half way there', "that's halfway", 'half of it done'],
    chat: [
      'Keep the jug close to you.',
      'Breathe out on the way up, shoulders down.',
      'Nearly there, you are doing fine.',
      'Knees over your toes.',
      'Slow and long, look ahead of you.',
      'Let your hips go back and stay low.',
      'Rest your arms on the deck if you need to.',
      'Keep going, that is good work.',
      'Do not stop now, a little more.',
      'We start from the feet and work our way up.',
      'If it hurts, go slower.',
      'I like this one, it goes well with tea.',
      'Lift, and lower, and lift.',
      'Ten of these are enough for me.',
      'Half the weight will do.',
      'This is the next thing to look at: your back.',
      'Left foot, right foot.',
      'Take your time with it.',
      'Well done, everybody.',
      'Watch the rope beside you.',
      'Push the floor away and hold it there.',
      'Five more like that.',
      'Chest up, eyes on the bank.',
      'Change sides when you are ready.',
    ],
  },
  es: {
    work: ['vamos', 'ya', 'empieza', 'a trabajar', 'dale', 'y vamos', 'empezamos', 'arriba, vamos'],
    rest: ['descansa', 'descanso', 'para', 'y descansa', 'pausa', 'alto', 'y para', 'tiempo'],
    ten: ['diez segundos', 'quedan diez segundos', 'diez más', 'últimos diez segundos'],
    next: ['lo siguiente', 'ahora viene', 'el siguiente', 'lo próximo es'],
    half: ['mitad', 'a la mitad', 'ya es la mitad', 'media parte'],
    chat: [
      'Mantén la jarra cerca de ti.',
      'Suelta el aire al subir, hombros abajo.',
      'Muy bien, lo estás haciendo bien.',
      'Las rodillas sobre los pies.',
      'Vamos despacio con la espalda larga.',
      'Descansa los brazos si lo necesitas.',
      'No pares ahora, un poco más.',
      'Empieza siempre por los pies.',
      'Arriba y abajo, arriba y abajo.',
      'Con la mitad del peso es bastante.',
      'Mira hacia delante.',
      'Pie izquierdo, pie derecho.',
      'Respira y aguanta.',
      'Cinco más como esa.',
    ],
  },
  de: {
    work: ['los', 'und los', "los geht's", 'Start', 'weiter', 'ab', 'und weiter', 'Arbeit'],
    rest: ['Pause', 'und Pause', 'stopp', 'und stopp', 'ausruhen', 'Schluss', 'fertig', 'Zeit'],
    ten: ['zehn Sekunden', 'noch zehn Sekunden', 'die letzten zehn', 'noch zehn'],
    next: ['als Nächstes', 'jetzt kommt', 'die nächste Übung', 'gleich kommt'],
    half: ['Hälfte', 'halbe Zeit', 'die Hälfte ist geschafft', 'Halbzeit'],
    chat: [
      'Den Krug nah am Körper halten.',
      'Beim Hochgehen ausatmen, Schultern runter.',
      'Sehr gut, du machst das prima.',
      'Die Knie über die Zehen.',
      'Lass dir Zeit und mach weiter so.',
      'Keine Pause in den Armen, noch ein bisschen.',
      'Wir fangen bei den Füßen an.',
      'Hoch und runter, hoch und runter.',
      'Die Hälfte vom Gewicht reicht auch.',
      'Der Blick geht nach vorn.',
      'Linker Fuß, rechter Fuß.',
      'Lass nicht los und halte die Spannung.',
      'Atmen nicht vergessen.',
      'Noch fünf davon.',
    ],
  },
  fr: {
    work: ['allez', "c'est parti", 'go', 'on y va', 'partez', 'et go', 'on travaille', 'commencez'],
    rest: ['repos', 'stop', 'pause', 'et repos', "on s'arrête", 'récupère', 'et stop', 'terminé'],
    ten: ['dix secondes', 'encore dix secondes', 'plus que dix secondes', 'les dix dernières'],
    next: ['ensuite', 'maintenant on a', 'le prochain', "et après c'est"],
    half: ['la moitié', 'à mi-chemin', 'moitié faite', 'mi-temps'],
    chat: [
      'Garde le broc près de toi.',
      'Souffle en montant, épaules basses.',
      'Très bien, tu y es presque.',
      'Les genoux au-dessus des orteils.',
      'On y va doucement avec le dos long.',
      'Repose les bras si besoin.',
      "Ne t'arrête pas, encore un peu.",
      'On commence toujours par les pieds.',
      'En haut et en bas, en haut et en bas.',
      'La moitié du poids suffit.',
      'Regarde devant toi.',
      'Pied gauche, pied droit.',
      'Respire et tiens bon.',
      'Encore cinq comme ça.',
    ],
  },
}

export const UNHEARD: Record<Language, Wordings> = {
  it: ITALIAN,
  en: {
    work: ['and off we go', 'go now', 'okay, go', "and let's work", 'start now'],
    rest: ['rest now', 'and have a rest', 'stop there', 'and pause', 'have a break'],
    ten: ['just ten seconds', 'ten seconds more'],
    next: ['next thing', 'what comes next'],
    half: ["we're halfway", 'halfway through'],
    chat: [
      'Long back, and push the deck away.',
      'If it is too much, leave the jug out.',
      'The Second Kettle rocks a little today.',
      'Soft landing, quiet feet.',
      'Shake out your arms and stay with me.',
      'Do not let the heels go up.',
      'The rest of you stays quite still.',
      'You can start smaller than I do.',
      'That was a good one.',
      'Four more, three more if you are new.',
    ],
  },
  es: {
    work: ['vamos ya', 'ahora empieza', 'venga, vamos'],
    rest: ['y pausa', 'ahora descansa', 'un descanso'],
    ten: ['solo diez segundos'],
    next: ['y el siguiente es'],
    half: ['vas por la mitad'],
    chat: [
      'La espalda larga y empuja la cubierta.',
      'Si es demasiado, deja la jarra.',
      'Hoy el barco se mueve un poco.',
      'Cae suave, pies callados.',
      'Sacude los brazos y quédate conmigo.',
      'Para la espalda es mejor así.',
    ],
  },
  de: {
    work: ['und Start', 'jetzt los', 'auf, los'],
    rest: ['kurze Pause', 'jetzt Pause', 'und Schluss'],
    ten: ['nur noch zehn Sekunden'],
    next: ['als Nächstes kommt'],
    half: ['wir haben die Hälfte'],
    chat: [
      'Langer Rücken, das Deck wegdrücken.',
      'Wenn es zu viel ist, lass den Krug weg.',
      'Das Boot schaukelt heute ein wenig.',
      'Weich landen, leise Füße.',
      'Schüttel die Arme aus und bleib bei mir.',
      'Die Fersen bleiben am Boden.',
    ],
  },
  fr: {
    work: ['allez, on y va', 'et on commence', 'allez, go'],
    rest: ['et pause', 'petite pause', 'repos maintenant'],
    ten: ['juste dix secondes'],
    next: ['et ensuite on a'],
    half: ['on est à la moitié'],
    chat: [
      'Le dos long, pousse le pont.',
      "Si c'est trop, laisse le broc.",
      "Le bateau bouge un peu aujourd'hui.",
      'Retombe doucement, pieds légers.',
      'Secoue les bras et reste avec moi.',
      'Les talons restent au sol.',
    ],
  },
}
