// A film as Watch shows it: its cut, beside every other, with what is heard in it.
import { choicesOf, everyFit, type FitChoice } from '../cut/choices'
import type { CutWishes, Filmed, Fit, Fitted } from '../cut/fit'
import { heardInOutput } from '../cut/heard'
import type { Stretch } from '../cue/schedule'
import type { Ms } from '../units'
import { marksIn, type Mark } from './changes'

/** By the fit that is chosen. */
export interface WatchedFilm extends Pick<Fitted, 'cut' | 'plainCut' | 'shown'> {
  choices: Record<Fit, FitChoice>
  /** Where the coach speaks and the timer beeps, in output time. */
  coach: Stretch[]
  timer: Ms[]
  marks: Mark[]
}

export function watchedFilm(filmed: Filmed, wishes: CutWishes): WatchedFilm {
  const fits = everyFit(filmed, wishes)
  const { cut, plainCut, shown } = fits[wishes.fit]
  const { heard } = filmed
  return { cut, plainCut, shown, choices: choicesOf(fits), ...heardInOutput(cut, heard), marks: marksIn(cut, heard) }
}
