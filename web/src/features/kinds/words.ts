export const pair = (range: number[] | null | undefined): [number, number] | null =>
  range?.[0] === undefined || range[1] === undefined ? null : [range[0], range[1]]

export const ago = (days = 0) => `${Math.abs(days)} days ${days < 0 ? "before" : "after"}`
