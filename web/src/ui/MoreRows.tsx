import { Button } from "@chakra-ui/react"
import { useEffect, useRef } from "react"

export type Windowed = {
  hasNextPage: boolean
  isFetchingNextPage: boolean
  fetchNextPage: () => unknown
}
const NEAR = "800px" // a screen before the end, so that a list that is scrolled does not stop

/** The rest of a long list: asked for by the button, and with `auto` as soon as its end comes near. */
export function MoreRows({
  query: { hasNextPage, isFetchingNextPage, fetchNextPage },
  left,
  auto,
}: {
  query: Windowed
  left: number
  auto?: boolean
}) {
  const ref = useRef<HTMLButtonElement>(null)
  useEffect(() => {
    if (!auto || !ref.current || isFetchingNextPage || !("IntersectionObserver" in window)) return
    const watch = new IntersectionObserver(
      ([seen]) => seen?.isIntersecting && void fetchNextPage(),
      { rootMargin: NEAR },
    )
    watch.observe(ref.current)
    return () => watch.disconnect()
  }, [auto, isFetchingNextPage, fetchNextPage, left])
  if (!hasNextPage) return null
  return (
    <Button
      ref={ref}
      variant="outline"
      minH="44px"
      my="2"
      loading={isFetchingNextPage}
      onClick={() => void fetchNextPage()}
    >
      Show more, {left} left
    </Button>
  )
}
