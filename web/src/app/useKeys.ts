// The desk's keys: 1 to 7 stations, n new here, w working, / find a pot, ? this list.
import { useEffect, useState } from "react"
import { useNavigate } from "react-router"
import { STATIONS } from "./stations"

const typing = (e: KeyboardEvent) => {
  const t = e.target as HTMLElement
  return t.matches("input, textarea, select") || t.isContentEditable
}

const press = (selector: string) => document.querySelector<HTMLElement>(selector)?.click()

export function useKeys(): [boolean, (open: boolean) => void] {
  const navigate = useNavigate()
  const [helping, setHelping] = useState(false)
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey) return
      if (e.key === "Escape") {
        setHelping(false)
        press("[data-back]")
        return
      }
      if (typing(e)) return
      const station = STATIONS[Number(e.key) - 1]
      if (station) void navigate(station.to)
      else if (e.key === "n") press("[data-new]")
      else if (e.key === "w") {
        const focused = document.activeElement
        if (focused instanceof HTMLElement && focused.matches("[data-working]")) focused.click()
        else press("main [data-working]")
      } else if (e.key === "/") {
        e.preventDefault()
        void navigate("/pots?find=1")
      } else if (e.key === "?") setHelping((h) => !h)
      else return
    }
    window.addEventListener("keydown", onKey)
    return () => window.removeEventListener("keydown", onKey)
  }, [navigate])
  return [helping, setHelping]
}
