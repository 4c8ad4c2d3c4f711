// Apart from the hook, as a server page needs it too.
export const THEME_KEY = 'jivet-theme'

/** Runs before the first paint, so that no page flashes in the wrong theme. */
export const THEME_SCRIPT = `document.documentElement.dataset.theme=localStorage.getItem('${THEME_KEY}')||(matchMedia('(prefers-color-scheme: dark)').matches?'night':'day')`
