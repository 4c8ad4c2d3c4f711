/** Calls `leave` when the page is being left: the last moment at which it can send anything. @returns ends it. */
export function whenLeft(leave: () => void): () => void {
  window.addEventListener('pagehide', leave)
  return () => window.removeEventListener('pagehide', leave)
}
