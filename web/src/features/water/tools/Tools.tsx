import { lazy } from "react"
import type { Schemas } from "../../../api/client"
import { ToolShelf } from "../../../ui/ToolShelf"
import { TOOLS } from "./toolList"

const Panel = lazy(() => import("./Panels"))

/** What to do about it: each tool opens in place, under the waters it works on. */
export function Tools({ page, chosen }: { page: Schemas["WaterPage"]; chosen: number }) {
  return (
    <ToolShelf label="Water tools" tools={TOOLS}>
      {(id) => <Panel id={id} page={page} chosen={chosen} />}
    </ToolShelf>
  )
}
