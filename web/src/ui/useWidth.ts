import { useEffect, useRef, useState } from "react"

/** Width of an element as it changes, for drawings that lay themselves out. */
export function useWidth<T extends HTMLElement>(fallback: number) {
  const ref = useRef<T>(null)
  const [width, setWidth] = useState(fallback)
  useEffect(() => {
    if (!ref.current) return
    const watcher = new ResizeObserver(
      ([entry]) => entry && setWidth(Math.round(entry.contentRect.width)),
    )
    watcher.observe(ref.current)
    return () => watcher.disconnect()
  }, [])
  return [ref, width] as const
}
