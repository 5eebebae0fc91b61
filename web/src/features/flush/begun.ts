/** A flush begun out of Fenwa's reach: the plan as it was last seen. */
export type Begun = {
  code: string
  water: string
  round_L: number
  rounds: number
  pause_min: number
}
