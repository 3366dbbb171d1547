import { type RefObject, useLayoutEffect } from 'react'

/** Where a drawing stands smaller than this, words grow no further: they would cover what they name. */
const LEAST_SCALE = 0.5

/**
 * The size of words in a drawing as CSS, in its own units: what is given, and never less than the page's own text once it is drawn.
 * @param size in units of the drawing
 */
export const readable = (size: number) => `max(${size}px, calc(1rem * var(--unit, 1)))`

/**
 * Tells the words in a drawing how large it stands on the page: one px is so many of its units (--unit).
 * @param width of the drawing, in its units
 * @param height of the drawing, in its units
 */
export function useReadable(ref: RefObject<SVGSVGElement | null>, width: number, height: number) {
  useLayoutEffect(() => {
    const svg = ref.current
    if (!svg) return undefined
    const tell = (box: { width: number; height: number }) => {
      const scale = Math.min(box.width / width, box.height / height)
      if (scale > 0) svg.style.setProperty('--unit', String(1 / Math.max(scale, LEAST_SCALE)))
    }
    tell(svg.getBoundingClientRect())
    const observer = new ResizeObserver(([entry]) => entry && tell(entry.contentRect))
    observer.observe(svg)
    return () => observer.disconnect()
  }, [ref, width, height])
}
