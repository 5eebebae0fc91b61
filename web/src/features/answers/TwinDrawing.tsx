import { monthTick } from "../../ui/format"
import { scaleTime } from "d3-scale"
import { useWidth } from "../../ui/useWidth"
import { asDay } from "../leaf/axis"
import type { Chosen, Value } from "./queries"
import { ChangeLines } from "./ChangeLines"
import { spokenValues } from "./spoken"
import { StageCards } from "./StageCards"
import { TwinNames } from "./TwinNames"
import { ValueMark } from "./ValueMark"

const LEFT = 92
const STAGES = 66
const UP = 150 // the line both stand on
const ROOM = 92
const TALL = UP + ROOM + 66

/** Days shown: from three values before the change to today and what is to come. */
function spanOf(chosen: Chosen, today: string): [Date, Date] {
  const r = chosen.answer.result
  const before = r.treated.filter((v) => v.on < chosen.change.on).slice(-4)
  const first = before[0]?.on ?? chosen.change.on
  const ahead = r.stages.map((s) => s.since).filter((s) => s > today)
  const last = [today, r.closes_on, ...ahead].sort().at(-1) ?? today
  const pad = 12 * 86_400_000
  return [new Date(+asDay(first) - pad), new Date(+asDay(last) + 2 * pad)]
}

/** The plant grows up, what it is held against hangs; what both had is drawn through both halves. */
export function TwinDrawing({
  chosen,
  today,
  name,
}: {
  chosen: Chosen
  today: string
  name: string
}) {
  const [ref, wide] = useWidth<HTMLDivElement>(760)
  const r = chosen.answer.result
  const span = spanOf(chosen, today)
  const x = scaleTime()
    .domain(span)
    .range([LEFT, wide - 10])
  const at = (iso: string) => x(asDay(iso))
  const inside = (v: Value) => asDay(v.on) >= span[0] && asDay(v.on) <= span[1]
  const mine = r.treated.filter(inside)
  const beside = r.control.filter(inside)
  const most = Math.max(...[...mine, ...beside].map((v) => v.value), 1e-9)
  const tall = (v: Value) => (ROOM * 0.82 * v.value) / most
  const held =
    r.against === "twin"
      ? "its twin"
      : r.against === "last year"
        ? "itself, last year"
        : "its own trend"
  const leafy = chosen.measure === "leaf length"
  const months = x.ticks(wide < 520 ? 3 : 7)
  return (
    <div ref={ref}>
      <svg
        viewBox={`0 0 ${wide} ${TALL}`}
        width="100%"
        role="img"
        fill="none"
        aria-label={[
          `${name}: ${spokenValues(mine, "nothing measured", leafy)}.`,
          `${held}: ${spokenValues(beside, "nothing", leafy)}.`,
        ].join(" ")}
      >
        <rect
          x={Math.max(LEFT, at(r.opens_on))}
          y={STAGES}
          width={Math.max(0, at(r.closes_on) - Math.max(LEFT, at(r.opens_on)))}
          height={TALL - STAGES - 40}
          fill="var(--chakra-colors-bg-inset)"
        />
        {months.map((t) => (
          <text
            key={+t}
            x={x(t)}
            y={TALL - 22}
            textAnchor="middle"
            style={{ fontSize: 12 }}
            fill="var(--chakra-colors-fg-muted)"
          >
            {monthTick(t)}
          </text>
        ))}
        <line
          x1={LEFT}
          x2={wide - 10}
          y1={UP}
          y2={UP}
          stroke="var(--chakra-colors-leaf-edge)"
          strokeWidth="1.6"
        />
        <TwinNames line={UP} name={name} beside={chosen.twin?.name ?? ""} held={held} />
        <ChangeLines
          chosen={chosen}
          at={at}
          top={STAGES + 6}
          foot={TALL - 44}
          line={UP}
          right={wide}
        />
        {mine.map((v) => (
          <ValueMark
            key={`t${v.on}`}
            v={v}
            x={at(v.on)}
            base={UP}
            tall={tall(v)}
            up
            leafy={leafy}
          />
        ))}
        {beside.map((v) => (
          <ValueMark
            key={`c${v.on}`}
            v={v}
            x={at(v.on)}
            base={UP}
            tall={tall(v)}
            up={false}
            leafy={leafy}
            faint={r.against !== "twin"}
          />
        ))}
        <line
          x1={at(today)}
          x2={at(today)}
          y1={STAGES + 4}
          y2={TALL - 44}
          stroke="currentColor"
          strokeWidth="1.6"
        />
        <text
          x={at(today) + 4}
          y={STAGES + 16}
          style={{ fontSize: 12, fontWeight: 600 }}
          fill="currentColor"
        >
          today
        </text>
        <StageCards stages={r.stages} at={at} wide={wide} foot={STAGES} />
      </svg>
    </div>
  )
}
