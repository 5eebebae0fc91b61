// A write that is one press, and what every write takes back: no form library is needed for it.
import { useMutation, useQueryClient } from "@tanstack/react-query"
import { useRef } from "react"
import { askAnew } from "../api/askAnew"
import { newKey } from "../api/keys"
import { ApiProblem } from "../api/problem"

/** Invalidate what a write may have changed: pages come from this machine. What is `gone` is not asked for. */
export function useRefreshAll(gone?: (key: readonly unknown[]) => boolean) {
  const client = useQueryClient()
  return () => void askAnew(client, { predicate: (q) => !gone?.(q.queryKey) })
}

/** A write that is one press: the rules of a form, and no fields. */
export function usePress<B, A>(
  send: (body: B, key: string) => Promise<A>,
  onDone?: (answer: A, body: B) => void,
  onRefused?: (problem: ApiProblem) => void,
) {
  const refresh = useRefreshAll()
  const key = useRef(newKey())
  return useMutation<A, ApiProblem, B>({
    mutationFn: (body) => send(body, key.current),
    onSuccess: (answer, body) => {
      key.current = newKey()
      refresh()
      onDone?.(answer, body)
    },
    onError: (error) => error instanceof ApiProblem && onRefused?.(error),
  })
}
