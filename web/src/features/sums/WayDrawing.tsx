import { drawn } from "../../ui/typed"
import { saltColour } from "../../app/ramp"
import { amount, numberIn, unitName } from "../../ui/format"
import type { Sums } from "./useSums"
import { Flow, Label, Vessel } from "./vessels"

const litres = (typed: string) => amount(drawn(typed, "L") ?? 0, "L")

/** Tap, jug, can, pot and what runs off, each at the figure of its sum. */
export function WayDrawing({ sums }: { sums: Sums }) {
  const water = sums.water.answer?.water
  const blend = sums.blend.answer?.result
  const can = sums.feed.answer?.dose.result
  const flush = sums.flush.answer?.result
  if (!water) return null
  const thinner = sums.water.answer?.thinner.middle_uS_cm ?? 0
  const runoff = flush?.runoff_uS_cm ?? 0
  const spoken = [
    `water ${numberIn(water.middle_uS_cm, "µS/cm")}`,
    blend && `blend ${numberIn(blend.ec25_uS_cm, "µS/cm")}`,
    can && `can ${numberIn(can.ec_total_uS_cm, "µS/cm")}`,
    flush && `runoff ${flush.after.map((n) => numberIn(n, "µS/cm")).join(", ")}`,
  ]
  return (
    <svg
      viewBox="0 0 1200 170"
      width="100%"
      role="img"
      aria-label={`The way of water in ${unitName("µS/cm")}: ${spoken.filter(Boolean).join("; ")}`}
    >
      <Vessel
        x={20}
        y={30}
        w={150}
        h={96}
        ec={water.middle_uS_cm}
        words={numberIn(water.middle_uS_cm, "µS/cm")}
        open={!water.measured}
      />
      <Label x={95} words="this water" />
      {blend && (
        <>
          <Flow from={[170, 60]} to={[300, 74]} ec={water.middle_uS_cm} />
          <Vessel
            x={270}
            y={50}
            w={150}
            h={76}
            ec={blend.ec25_uS_cm}
            words={numberIn(blend.ec25_uS_cm, "µS/cm")}
            open={!water.measured}
          />
          <Label x={345} words="thinned" />
        </>
      )}
      {can && (
        <>
          {sums.feed.values.fill === "this" ? (
            <Flow from={[150, 24]} to={[590, 60]} ec={water.middle_uS_cm} />
          ) : (
            <path
              d="M600 4 v46"
              stroke={saltColour(thinner)}
              strokeWidth="9"
              strokeDasharray="4 3"
            />
          )}
          <Vessel
            x={520}
            y={30}
            w={190}
            h={96}
            ec={can.ec_total_uS_cm}
            words={numberIn(can.ec_total_uS_cm, "µS/cm")}
          />
          <Label x={615} words={`can of ${litres(sums.feed.values.volume)}`} />
        </>
      )}
      {flush && (
        <>
          <path d="M800 34 h112 l-14 92 h-84 Z" fill="none" stroke="currentColor" strokeWidth="2" />
          <path d="M794 34 h124" stroke="currentColor" strokeWidth="6" />
          <path
            d="M838 50 v76 M856 50 v76 M874 50 v76"
            stroke={saltColour(runoff)}
            strokeWidth="5"
          />
          <Label x={856} words={`pot of ${litres(sums.flush.values.volume)}`} />
          {flush.after.slice(0, 5).map((n, i) => (
            <Vessel key={i} x={940 + i * 52} y={96} w={46} h={30} ec={n} words="" />
          ))}
          {flush.after.slice(0, 5).map((n, i) => (
            <text
              key={n}
              x={963 + i * 52}
              y="88"
              textAnchor="middle"
              style={{ fontSize: 13 }}
              fill="currentColor"
            >
              {numberIn(n, "µS/cm")}
            </text>
          ))}
          {flush.after.length > 0 && <Label x={1068} words="runs off, round by round" />}
        </>
      )}
    </svg>
  )
}
