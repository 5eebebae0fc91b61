// The reader's units and order of dates stand before anything is written in them.
import { useSettings } from "../api/queries"
import { readAs } from "./format"

/** Writes numbers and days as the settings say; undefined until they are known. */
export function useReader() {
  const settings = useSettings()
  if (settings) readAs(settings) // of this very render: what is drawn below it is written so
  return settings
}
