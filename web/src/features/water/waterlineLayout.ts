// Where labels go so that none covers another: rows are filled greedily from the axis outwards.
export type Mark = { key: string; x: number; width: number }
export type Placed = Mark & { row: number; left: number; right: boolean }

/** Labels centred over their mark, clear of the next mark's stem, in the first row where they fit. */
export function placeCentred(marks: Mark[], total: number, gap = 10): Placed[] {
  const ends: number[] = []
  const sorted = [...marks].sort((a, b) => a.x - b.x)
  return sorted.map((m, i) => {
    const next = sorted[i + 1]
    const clear = next && next.x - m.x > 4 ? next.x - gap - m.width : Infinity
    const before = sorted[i - 1]
    const centred =
      before && m.x - before.x < m.width / 2
        ? Math.max(m.x - m.width / 2, before.x + gap)
        : m.x - m.width / 2
    const left = Math.min(Math.max(Math.min(centred, clear), 0), Math.max(0, total - m.width))
    let row = ends.findIndex((end) => left >= end + gap)
    if (row < 0) row = ends.length
    ends[row] = left + m.width
    return { ...m, row, left, right: false }
  })
}

/** Labels beside their mark. From right to left, each hangs deeper than every stem its label would cross. */
export function placeBeside(marks: Mark[], total: number, gap = 14): Placed[] {
  const placed: Placed[] = []
  for (const m of [...marks].sort((a, b) => b.x - a.x)) {
    const right = m.x + m.width + gap > total
    const left = right ? m.x - m.width - gap : m.x - 6
    const crossed = placed.filter(
      (p) =>
        (p.x >= left - 2 && p.x <= left + m.width + gap) ||
        (p.left < left + m.width + gap && left < p.left + p.width + gap),
    )
    placed.push({ ...m, row: Math.max(-1, ...crossed.map((p) => p.row)) + 1, left, right })
  }
  return placed
}
