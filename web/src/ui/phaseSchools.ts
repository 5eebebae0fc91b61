/** The ways to tell a phase, in a grower's words. */
export const PHASE_SCHOOLS = [
  { value: "noted", label: "by what I note" },
  { value: "calendar", label: "by the calendar" },
  { value: "growth", label: "by what is seen growing" },
  { value: "warmth", label: "by the nights" },
  { value: "lamps", label: "by the lamps" },
]
