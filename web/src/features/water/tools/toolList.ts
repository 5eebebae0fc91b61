// The tools of the station, in the order of the work. A new tool: a component here and a line in Tools.tsx.
export const TOOLS = [
  { id: "blend", name: "Blend" },
  { id: "share", name: "Share out" },
  { id: "need", name: "How long it lasts" },
  { id: "membrane", name: "Membrane" },
  { id: "chlorine", name: "Chlorine" },
  { id: "alkalinity", name: "Alkalinity" },
  { id: "boil", name: "Boil" },
  { id: "meters", name: "Meters" },
  { id: "reports", name: "Reports" },
  { id: "inbox", name: "Inbox and files" },
] as const

export type ToolId = (typeof TOOLS)[number]["id"]
