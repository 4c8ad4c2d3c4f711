/** A key pressed while text is being typed or a control is in use is not a shortcut. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      ['INPUT', 'SELECT', 'TEXTAREA'].includes(target.tagName) ||
      target.closest('[role=dialog],[role=slider]') !== null)
  )
}

/** The same, but for fields in which nothing was typed yet: there Ctrl Z means the step before. */
export const isBeingTyped = (event: KeyboardEvent): boolean =>
  isTyping(event) && !(event.target instanceof HTMLElement && event.target.dataset.kept !== undefined)

const SWITCH = 'jivet-single-keys'

/** Whether a key alone, without Ctrl or Alt, is a shortcut: some hands, and voices, press keys that were not meant. */
export const singleKeysOn = (): boolean => localStorage.getItem(SWITCH) !== 'off'
export const setSingleKeys = (on: boolean): void => localStorage.setItem(SWITCH, on ? 'on' : 'off')

/** Whether a key press may do something on the page. */
export const isShortcut = (event: KeyboardEvent): boolean =>
  !isTyping(event) && (event.ctrlKey || event.metaKey || event.altKey || singleKeysOn())
