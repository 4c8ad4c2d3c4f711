// What is said of music.
export const musicTexts = {
  heading: 'Music',
  hint: 'Each piece begins on a change, plays through, and goes down before talk and under whatever is said.',
  bring: 'Bring a piece',
  coming: (name: string) => `Bringing ${name} ...`,
  failed: 'The piece could not be brought. Try again.',
  before: 'Brought before',
  choose: 'choose',
  level: 'Against your voice',
  units: (lu: number) => `${lu} LU`,
  earlier: (name: string) => `Play ${name} earlier`,
  out: (name: string) => `Take ${name} out`,
  rights:
    'Music is somebody’s. Use what is your own, or what you have a licence for that covers published video, and name it as the licence asks. Hosts find the rest.',
} as const
