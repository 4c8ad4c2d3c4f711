// The pigments of Jivet, once. `ui/tokens.css` is written from these by hand and a test holds the two together.

export interface Palette {
  ink: string
  paper: string
  land: string
  water: string
  deep: string
  signal: string
  pale: string
  /** What textures are printed in: dark on land by day and by night. */
  print: string
  /** The waveform, and the threads that cross the water. */
  sound: string
  thread: string
}

/** Day: ink printed on pale lichen paper. */
export const DAY_PALETTE: Palette = {
  ink: '#10241e',
  paper: '#e1eadd',
  land: '#f2b01e',
  water: '#2a7b84',
  deep: '#0e4a52',
  signal: '#b5321a',
  pale: '#f3f7ee',
  print: '#10241e',
  sound: '#0e4a52',
  thread: '#f3f7ee',
}

/** Night: the same block, printed in pale ink on dark paper. */
export const NIGHT_PALETTE: Palette = {
  ink: '#e6efe1',
  paper: '#10201b',
  land: '#e0a21a',
  water: '#1f5f68',
  deep: '#0a3238',
  signal: '#ff8163',
  pale: '#1a2e27',
  print: '#10201b',
  sound: '#5fa3ab',
  thread: '#e6efe1',
}

/** What lies over footage is the same by day and by night. */
export const OVERLAY = {
  ink: '#10241e',
  pale: '#f3f7ee',
  land: '#f2b01e',
  water: '#14626c',
  muted: '#b9cbbf',
  dim: '#44584f',
} as const

export const FONTS = { display: 'Londrina Solid', text: 'Hanken Grotesk' } as const
