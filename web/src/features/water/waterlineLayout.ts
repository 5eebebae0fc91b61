// Where labels go so that none covers another: rows are filled greedily from the axis outwards.
export type Mark = { key: string; x: number; width: number }
export type Placed = Mark & { row: number; left: number; right: boolean }

/** Centred labels clamped to the drawing, in the first row where they fit. */
export function placeCentred(marks: Mark[], total: number, gap = 10): Placed[] {
  const ends: number[] = []
  return [...marks].sort((a, b) => a.x - b.x).map((m) => {
    const left = Math.min(Math.max(m.x - m.width / 2, 0), total - m.width)
    let row = ends.findIndex((end) => left >= end + gap)
    if (row < 0) row = ends.length
    ends[row] = left + m.width
    return { ...m, row, left, right: false }
  })
}

/** Labels to the right of their mark, or to the left near the edge. */
export function placeBeside(marks: Mark[], total: number, gap = 14): Placed[] {
  const rows: [number, number][][] = []
  return [...marks].sort((a, b) => a.x - b.x).map((m) => {
    const right = m.x + m.width + gap > total
    const left = right ? m.x - m.width - gap : m.x - 6
    const span: [number, number] = [left, left + m.width + gap + 6]
    let row = rows.findIndex((taken) => taken.every(([a, b]) => span[1] < a || span[0] > b))
    if (row < 0) row = rows.length
    ;(rows[row] ??= []).push(span)
    return { ...m, row, left, right }
  })
}
