// A canvas that is as sharp as the screen, redrawn when its size, its fonts or what it shows changes.
'use client'
import { useEffect, useRef, useState, type RefObject } from 'react'
import { FONTS } from '@/core/look/palette'

/**
 * @param draw gets the context scaled to CSS pixels, and the size in them. It runs again whenever it is a new function.
 */
export function useCanvas(
  draw: (pen: CanvasRenderingContext2D, width: number, height: number) => void,
): RefObject<HTMLCanvasElement | null> {
  const ref = useRef<HTMLCanvasElement>(null)
  const size = useSize(ref)
  const ready = useFonts()
  useEffect(() => {
    const canvas = ref.current
    const pen = canvas?.getContext('2d')
    if (!canvas || !pen || !size.width || !size.height) return
    const sharp = window.devicePixelRatio || 1
    canvas.width = Math.round(size.width * sharp)
    canvas.height = Math.round(size.height * sharp)
    pen.scale(sharp, sharp)
    draw(pen, size.width, size.height)
  }, [draw, size, ready])
  return ref
}

/** The element's size in CSS pixels, followed as it changes. */
export function useSize(ref: RefObject<HTMLElement | null>): { width: number; height: number } {
  const [size, setSize] = useState({ width: 0, height: 0 })
  useEffect(() => {
    const element = ref.current
    if (!element) return
    const measure = (): void => setSize({ width: element.clientWidth, height: element.clientHeight })
    const watcher = new ResizeObserver(measure)
    watcher.observe(element)
    measure()
    return () => watcher.disconnect()
  }, [ref])
  return size
}

/** True once the fonts that are drawn with have arrived. */
export function useFonts(): boolean {
  const [ready, setReady] = useState(false)
  useEffect(() => {
    void Promise.all(
      [`400 20px "${FONTS.display}"`, `500 20px "${FONTS.text}"`, `700 20px "${FONTS.text}"`].map((font) =>
        document.fonts.load(font),
      ),
    ).then(() => setReady(true))
  }, [])
  return ready
}
