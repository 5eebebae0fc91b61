import { useQuery } from "@tanstack/react-query"
import { useEffect, useRef } from "react"
import { potQuery } from "../../../api/queries"
import { ChangePot } from "./ChangePot"

/** Changes one pot without leaving the list. */
export function ChangeInPlace({ id, onClose }: { id: number; onClose: () => void }) {
  const page = useQuery(potQuery(id)).data
  const form = useRef<HTMLDivElement>(null)
  const there = page !== undefined
  useEffect(() => {
    if (there) form.current?.querySelector("input")?.focus() // it opens above the list: the eye and the keys go there
  }, [there])
  return <div ref={form}>{page && <ChangePot page={page} onClose={onClose} />}</div>
}
