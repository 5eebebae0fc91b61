import { createContext } from "react"
import type { WorkingSource } from "../api/queries"

/** Opens the working panel. */
export const WorkingContext = createContext<(source: WorkingSource, label: string) => void>(
  () => undefined,
)
