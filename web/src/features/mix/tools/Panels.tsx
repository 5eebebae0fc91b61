import type { Schemas } from "../../../api/client"
import type { Draft, Page } from "../draft"
import { CompareTool } from "./CompareTool"
import { FitTool } from "./FitTool"
import { MistTool } from "./MistTool"
import { NamesTool } from "./NamesTool"
import { SchoolsTool } from "./SchoolsTool"
import { SpoonTool } from "./SpoonTool"
import { StockTool } from "./StockTool"
import type { ToolId } from "./toolList"

export type ToolProps = {
  page: Page
  waters: Schemas["MixWater"][]
  draft: Draft
  onDraft: (d: Draft) => void
}
const PANELS: Record<ToolId, React.ComponentType<ToolProps>> = {
  fit: FitTool,
  compare: CompareTool,
  stock: StockTool,
  mist: MistTool,
  names: NamesTool,
  spoons: SpoonTool,
  schools: SchoolsTool,
}

/** The open tool. */
export default function Panel({ id, ...props }: ToolProps & { id: ToolId }) {
  const Open = PANELS[id]
  return <Open {...props} />
}
