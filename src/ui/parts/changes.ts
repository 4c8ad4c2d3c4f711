// Hears from the server what has changed, over one stream for all tabs: whoever holds the lock holds the stream and
// tells the others; when that tab closes, the next takes over. A browser allows a server only six connections.
'use client'

/** Told with a workout's id, or with `all` where changes may have been missed. */
type Listener = (changed: string) => void

const CHANNEL = 'jivet-changes'
const listeners = new Set<Listener>()
let begun = false

/** @returns a function that ends the listening. */
export function onChanges(listener: Listener): () => void {
  listeners.add(listener)
  if (!begun) begin()
  return () => void listeners.delete(listener)
}

function begin(): void {
  begun = true
  const channel = new BroadcastChannel(CHANNEL)
  const hear = (changed: string): void => listeners.forEach((one) => one(changed))
  channel.onmessage = ({ data }: MessageEvent<string>) => hear(data)
  void navigator.locks.request(CHANNEL, () => {
    const source = new EventSource('/api/events')
    source.onmessage = ({ data }: MessageEvent<string>) => {
      hear(data)
      channel.postMessage(data)
    }
    // Held until the tab goes.
    return new Promise<never>(() => {})
  })
}
