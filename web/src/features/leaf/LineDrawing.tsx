import type { ScaleTime } from "d3-scale"
import { asDay } from "./axis"
import { LeafShape } from "./LeafShape"
import type { PlantLine } from "./queries"
import { useChosenLeaf } from "./useChosenLeaf"
import { PouredTicks } from "./PouredTicks"
import { saysOfLeaf, saysOfLine } from "./says"

const HEIGHT = 54
const BASE = 38
const USUAL = 22 // height of a leaf that is as long as usual
const TALLEST = 1.5

/** A plant as a line: leaves where they opened, feeds and flushes beneath, the window of its newest change shaded. */
export function LineDrawing({
  plant,
  today,
  x,
  width,
  onLeaf,
}: {
  plant: PlantLine
  today: string
  x: ScaleTime<number, number>
  width: number
  onLeaf: (index: number | null) => void
}) {
  const { line } = plant
  const at = (iso: string) => x(asDay(iso))
  const from = x.range()[0] ?? 0
  const inside = (iso: string) => at(iso) >= from
  const seen = plant.last_look_on && inside(plant.last_look_on) ? at(plant.last_look_on) : from
  const due = line.group === "look today"
  const { chosen, choose, onKey } = useChosenLeaf(line.leaves.length, onLeaf)
  return (
    <svg
      width="100%"
      viewBox={`0 0 ${width} ${HEIGHT}`}
      role="slider"
      tabIndex={0}
      aria-label={saysOfLine(plant, today)}
      aria-valuemin={0}
      aria-valuemax={line.leaves.length}
      aria-valuenow={chosen + 1}
      aria-valuetext={
        saysOfLeaf(plant, chosen, today) || "no leaf chosen; arrow keys go through them"
      }
      onKeyDown={onKey}
      fill="none"
      onPointerLeave={() => choose(-1)}
    >
      {line.opens_on && line.closes_on && at(line.closes_on) > from && (
        <rect
          x={Math.max(from, at(line.opens_on))}
          y="4"
          width={Math.max(
            0,
            Math.min(width - 4, at(line.closes_on)) - Math.max(from, at(line.opens_on)),
          )}
          height={BASE - 4}
          fill="var(--chakra-colors-bg-inset)"
        />
      )}
      <line
        x1={from}
        x2={at(today)}
        y1={BASE - USUAL}
        y2={BASE - USUAL}
        stroke="currentColor"
        opacity="0.35"
        strokeDasharray="1 3"
      />
      <line
        x1={from}
        x2={seen}
        y1={BASE}
        y2={BASE}
        stroke="var(--chakra-colors-leaf-edge)"
        strokeWidth="1.6"
      />
      <line
        x1={seen}
        x2={at(today)}
        y1={BASE}
        y2={BASE}
        stroke="var(--chakra-colors-leaf-edge)"
        strokeWidth="1.6"
        strokeDasharray="2 3"
      />
      <PouredTicks plant={plant} inside={inside} at={at} y={BASE + 4} />
      {line.change_on && inside(line.change_on) && (
        <>
          <line
            x1={at(line.change_on)}
            x2={at(line.change_on)}
            y1="4"
            y2={BASE + 2}
            stroke="currentColor"
            strokeDasharray="2 2"
          />
          <text x={at(line.change_on) + 4} y="12" style={{ fontSize: 11 }} fill="currentColor">
            {line.change}
          </text>
        </>
      )}
      {line.leaves.map((leaf, i) =>
        inside(leaf.opened_on) ? (
          <g key={`${leaf.opened_on}-${i}`} onPointerEnter={() => choose(i)}>
            <rect x={at(leaf.opened_on) - 9} y="0" width="18" height={BASE} fill="transparent" />
            <LeafShape
              x={at(leaf.opened_on)}
              base={BASE}
              tall={USUAL * Math.min(TALLEST, leaf.share ?? 0.5)}
              formed={line.change_on ? leaf.formed : null}
              dashed={leaf.mm === null || leaf.growing}
            />
          </g>
        ) : null,
      )}
      {line.next_leaf.next_on && (
        <LeafShape
          x={Math.min(width - 8, Math.max(at(line.next_leaf.next_on), at(today) + 8))}
          base={BASE}
          tall={USUAL}
          formed="formed before"
          dashed
        />
      )}
      <line
        x1={at(today)}
        x2={at(today)}
        y1="2"
        y2={HEIGHT - 4}
        stroke="currentColor"
        strokeWidth="1.2"
      />
      <circle
        cx={at(today)}
        cy={BASE}
        r={due ? 5 : 3.5}
        fill={due ? "var(--chakra-colors-bg-panel)" : "var(--chakra-colors-leaf-edge)"}
        stroke="var(--chakra-colors-leaf-edge)"
        strokeWidth="1.8"
      />
    </svg>
  )
}
