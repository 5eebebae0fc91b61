// The whole screen for a draft, asked as it changes: at most one question every moment, an older one is dropped.
import { keepPreviousData, useQuery } from "@tanstack/react-query"
import { useEffect, useState } from "react"
import { answer, client } from "../../api/client"
import { useSettings } from "../../api/queries"
import { type Draft, body } from "./draft"

/** Follows a value while it is dragged: the newest one each `ms`, and the last one in the end. */
export function useThrottled<T>(value: T, ms: number): T {
  const [shown, setShown] = useState(value)
  const [at, setAt] = useState(0)
  useEffect(() => {
    const wait = Math.max(0, at + ms - Date.now())
    const timer = setTimeout(() => {
      setShown(value)
      setAt(Date.now())
    }, wait)
    return () => clearTimeout(timer)
  }, [value, ms, at])
  return shown
}

export function usePreview(draft: Draft) {
  const settings = useSettings()
  const unit = settings?.volume_unit ?? "L"
  const text = useThrottled(JSON.stringify(body(draft, unit)), 80)
  return useQuery({
    queryKey: ["preview", text, settings?.scale_step_g, settings?.syringe_step_mL],
    queryFn: ({ signal }) =>
      answer(
        client.POST("/api/mix/preview", {
          body: JSON.parse(text) as ReturnType<typeof body>,
          signal,
        }),
      ),
    enabled: draft.product_id !== null,
    placeholderData: keepPreviousData,
    retry: false,
  })
}
