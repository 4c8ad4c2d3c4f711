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
