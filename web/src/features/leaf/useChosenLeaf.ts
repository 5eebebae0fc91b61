import { useState } from "react"

/** The leaf that is read, by pointer or by arrow keys; -1: none. */
export function useChosenLeaf(count: number, onLeaf: (index: number | null) => void) {
  const [chosen, setChosen] = useState(-1)
  const last = count - 1
  const choose = (i: number) => {
    setChosen(i)
    onLeaf(i < 0 ? null : i)
  }
  const onKey = (e: React.KeyboardEvent) => {
    if (e.key === "ArrowLeft") choose(chosen < 0 ? last : Math.max(0, chosen - 1))
    else if (e.key === "ArrowRight") choose(Math.min(last, chosen + 1))
    else if (e.key === "Home") choose(Math.min(0, last))
    else if (e.key === "End") choose(last)
    else return
    e.preventDefault()
  }
  return { chosen, choose, onKey }
}
