// The simulated heart-rate strap, while a session runs: shown every second, written down every few.
'use client'
import { useEffect, useState } from 'react'
import { heartRateIn, STRAP_PORT } from '@/core/floor/heart'
import type { FloorLink } from './FloorLink'

const ADDRESS = `ws://127.0.0.1:${STRAP_PORT}`
const WRITTEN_EVERY_MS = 5000
const AGAIN_MS = 3000
/** A strap that says nothing for so long is not worn. */
const SILENT_MS = 4000

/** @returns beats a minute; null while nothing is measured. */
export function useStrap(on: boolean, link: FloorLink): number | null {
  const [bpm, setBpm] = useState<number | null>(null)
  useEffect(() => {
    if (!on) return
    let socket: WebSocket | null = null
    let writtenAt = -Infinity
    let heardAt = 0
    let over = false
    const open = (): void => {
      if (over) return
      socket = new WebSocket(ADDRESS)
      socket.binaryType = 'arraybuffer'
      socket.onmessage = ({ data }) => {
        const rate = data instanceof ArrayBuffer ? heartRateIn(new Uint8Array(data)) : null
        heardAt = performance.now()
        setBpm(rate)
        if (rate === null || heardAt - writtenAt < WRITTEN_EVERY_MS) return
        writtenAt = heardAt
        link.tell({ kind: 'heart', bpm: rate, simulated: true })
      }
      socket.onclose = () => setTimeout(open, AGAIN_MS)
    }
    open()
    const watch = setInterval(() => {
      if (performance.now() - heardAt > SILENT_MS) setBpm(null)
    }, 1000)
    return () => {
      over = true
      clearInterval(watch)
      socket?.close()
    }
  }, [on, link])
  return on ? bpm : null
}
