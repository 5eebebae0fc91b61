import type { Schemas } from "../../../api/client"
import { Meters } from "../meters/Meters"
import { Inbox } from "../reading/Inbox"
import { Reports } from "../reports/Reports"
import { AlkalinityTool } from "./AlkalinityTool"
import { BlendTool } from "./BlendTool"
import { BoilTool } from "./BoilTool"
import { ChlorineTool } from "./ChlorineTool"
import { MembraneTool } from "./MembraneTool"
import { NeedTool } from "./NeedTool"
import { ShareTool } from "./ShareTool"
import type { ToolId } from "./toolList"

type Props = { page: Schemas["WaterPage"]; chosen: number }
const PANELS: Record<ToolId, React.ComponentType<Props>> = {
  blend: BlendTool,
  share: ShareTool,
  need: NeedTool,
  membrane: MembraneTool,
  chlorine: ChlorineTool,
  alkalinity: AlkalinityTool,
  boil: BoilTool,
  meters: Meters,
  reports: Reports,
  inbox: Inbox,
}

/** The open tool; it starts anew for another water. */
export default function Panel({ id, page, chosen }: Props & { id: ToolId }) {
  const Open = PANELS[id]
  return <Open key={chosen} page={page} chosen={chosen} />
}
