// Whether what is written can be read from where viewers stand. Angles are those of a letter's height, in minutes of
// arc, as lighting and traffic signs are judged by.
import type { Frame } from './drawOverlay'
import { FAMILY, type LookWish } from './looks/family'
import type { Sizes } from './looks/part'

export type Minutes = number

export const SCREENS = {
  /** A phone lying on the floor beside the mat; its picture's shorter and longer side. */
  phone: { awayMm: 2000, shortMm: 65, longMm: 116 },
  tablet: { awayMm: 1000, shortMm: 148, longMm: 222 },
  television: { awayMm: 3500, shortMm: 685, longMm: 1218 },
} as const
export type Screen = keyof typeof SCREENS

/** Text that matters has to be seen under this angle, and the count under twice that. */
export const WANTED: Record<keyof Sizes, Minutes> = { count: 40, label: 20, next: 20, lines: 20 }

/** Of a capital letter, in shares of its font's size. */
const CAPITAL = 0.7

export interface Legible {
  minutes: Minutes
  isEnough: boolean
}

/**
 * @param frame of the video. A phone is turned to its picture, a tablet too; a television is not.
 * @returns for each kind of text at its smallest.
 */
export function legibility(wish: LookWish, frame: Frame, screen: Screen): Record<keyof Sizes, Legible> {
  const { sizes } = FAMILY[wish.look]
  const mmOfUnit = (shorterSideMm(frame, screen) / 100) * wish.size
  const of = (kind: keyof Sizes): Legible => {
    const letterMm = sizes[kind] * mmOfUnit * CAPITAL
    const minutes = ((2 * Math.atan(letterMm / 2 / SCREENS[screen].awayMm) * 180) / Math.PI) * 60
    // A tenth of a minute is beyond anybody's eye, and beyond what is known of the screen.
    return { minutes, isEnough: Math.round(minutes * 10) >= WANTED[kind] * 10 }
  }
  return { count: of('count'), label: of('label'), next: of('next'), lines: of('lines') }
}

/** Of the picture, as large as it is shown whole. */
function shorterSideMm(frame: Frame, screen: Screen): number {
  return Math.min(frame.width, frame.height) * mmOfPixel(frame, screen)
}

/** How large the picture has to be at `awayMm` to be as large to the eye as it is on that screen. */
export function seenMm(frame: Frame, screen: Screen, awayMm: number): Frame {
  const scale = (mmOfPixel(frame, screen) * awayMm) / SCREENS[screen].awayMm
  return { width: frame.width * scale, height: frame.height * scale }
}

function mmOfPixel({ width, height }: Frame, screen: Screen): number {
  const { shortMm, longMm } = SCREENS[screen]
  const isUpright = height > width && screen !== 'television'
  const [screenWidth, screenHeight] = isUpright ? [shortMm, longMm] : [longMm, shortMm]
  return Math.min(screenWidth / width, screenHeight / height)
}
