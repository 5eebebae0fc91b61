import { lazy, type ReactNode, Suspense, useCallback, useState } from "react"
import type { WorkingSource } from "../api/queries"
import { WorkingContext } from "./workingContext"

const WorkingPanel = lazy(() => import("./WorkingPanel"))

/** Holds the one working panel; it is loaded when first asked for. */
export function WorkingProvider({ children }: { children: ReactNode }) {
  const [shown, setShown] = useState<{ source: WorkingSource; label: string } | null>(null)
  const open = useCallback(
    (source: WorkingSource, label: string) => setShown({ source, label }),
    [],
  )
  return (
    <WorkingContext value={open}>
      {children}
      {shown && (
        <Suspense fallback={null}>
          <WorkingPanel source={shown.source} label={shown.label} onClose={() => setShown(null)} />
        </Suspense>
      )}
    </WorkingContext>
  )
}
