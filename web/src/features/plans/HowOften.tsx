import { Box, Flex, Input } from "@chakra-ui/react"
import { Part, type PartProps, Pick } from "./Part"

const DROPS = 12

/** A row of waterings: a filled bar is a feed, a drop is plain. */
function Row({ feeds, cycle }: { feeds: number; cycle: number }) {
  return (
    <Box asChild display="block" w="100%" maxW="280px" color="fg" ml="7" mb="1">
      <svg viewBox="0 0 240 22" aria-hidden>
        {Array.from({ length: DROPS }, (_, i) =>
          i % Math.max(cycle, 1) < feeds ? (
            <rect
              key={i}
              x={i * 20 + 4}
              y="3"
              width="8"
              height="16"
              fill="var(--chakra-colors-leaf-edge)"
            />
          ) : (
            <circle key={i} cx={i * 20 + 8} cy="12" r="3.5" fill="none" stroke="currentColor" />
          ),
        )}
      </svg>
    </Box>
  )
}

function Small({
  label,
  value,
  onChange,
}: {
  label: string
  value: number | string
  onChange: (v: string) => void
}) {
  return (
    <Input
      aria-label={label}
      value={value}
      inputMode="decimal"
      w="64px"
      minH="40px"
      textAlign="center"
      fontWeight="semibold"
      onFocus={(e) => e.target.select()}
      onChange={(e) => onChange(e.target.value)}
    />
  )
}

/** How often: by days, by waterings, by a pattern, by months; a missed feed is never made up for. */
export function HowOften({ values: v, set, problem }: PartProps) {
  const nth = v.rhythm === "waterings" && v.feeds === 1
  const pattern = v.rhythm === "waterings" && v.feeds !== 1
  const whole = (x: string) => Math.max(1, Math.min(60, Number.parseInt(x) || 1))
  return (
    <Part title="How often" problem={problem.every_days ?? problem.feeds ?? problem.faster_days}>
      <Pick
        name="rhythm"
        checked={v.rhythm === "days"}
        onPick={() => set({ rhythm: "days" })}
        label="every"
      >
        <Small
          label="Days between feeds"
          value={v.every_days}
          onChange={(x) => set({ every_days: x as never, rhythm: "days" })}
        />
        <span>days, with a watering</span>
      </Pick>
      <Pick
        name="rhythm"
        checked={nth}
        onPick={() => set({ rhythm: "waterings", feeds: 1 })}
        label="every"
      >
        <Small
          label="Waterings from feed to feed"
          value={v.cycle}
          onChange={(x) => set({ cycle: whole(x), feeds: 1, rhythm: "waterings" })}
        />
        <span>waterings</span>
      </Pick>
      {nth && <Row feeds={1} cycle={v.cycle} />}
      <Pick
        name="rhythm"
        checked={pattern}
        onPick={() =>
          set({ rhythm: "waterings", feeds: Math.max(2, v.feeds), cycle: Math.max(3, v.cycle) })
        }
        label="pattern"
      />
      {pattern && (
        <>
          <Row feeds={v.feeds} cycle={v.cycle} />
          <Flex gap="2" align="center" ml="7" mb="2">
            <Small
              label="Feeds in a row"
              value={v.feeds}
              onChange={(x) => set({ feeds: whole(x) })}
            />
            <span>of</span>
            <Small
              label="Waterings in the pattern"
              value={v.cycle}
              onChange={(x) => set({ cycle: whole(x) })}
            />
          </Flex>
        </>
      )}
      <Pick
        name="rhythm"
        checked={v.rhythm === "months" && v.every_months === 1}
        onPick={() => set({ rhythm: "months", every_months: 1 })}
        label="once a month"
      />
      <Pick
        name="rhythm"
        checked={v.rhythm === "months" && v.every_months !== 1}
        onPick={() => set({ rhythm: "months", every_months: 2 })}
        label="every"
      >
        <Small
          label="Months between feeds"
          value={v.every_months === 1 ? 2 : v.every_months}
          onChange={(x) => set({ rhythm: "months", every_months: Math.min(12, whole(x)) })}
        />
        <span>months</span>
      </Pick>
      <Pick
        name="rhythm"
        checked={v.rhythm === "never"}
        onPick={() => set({ rhythm: "never" })}
        label="never: plain water"
      />
    </Part>
  )
}
