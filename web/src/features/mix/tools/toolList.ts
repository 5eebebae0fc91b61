// The tools of the station, in the order of the work. A new tool: a component here and a line in Panels.tsx.
export const TOOLS = [
  { id: "fit", name: "Recipe fit" },
  { id: "compare", name: "Compare feeds" },
  { id: "stock", name: "Stock and injector" },
  { id: "mist", name: "Mist bottle" },
  { id: "names", name: "Names of a strength" },
  { id: "spoons", name: "Spoons and drops" },
  { id: "schools", name: "Schools" },
] as const

export type ToolId = (typeof TOOLS)[number]["id"]
