/** Where the water of a pot goes, in words. */
export const WHERE_WATER_GOES = [
  { value: "drains", label: "drains away" },
  { value: "plunged", label: "sunk in a moist bed" },
  { value: "tray", label: "stands in a tray" },
  { value: "reservoir", label: "reservoir below" },
]

/** Whether it stands over water that has a level of its own. */
export const hasWaterBelow = (drainage: string) => drainage === "tray" || drainage === "reservoir"
