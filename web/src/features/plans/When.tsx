import { Box, Flex, Text } from "@chakra-ui/react"
import { Choose, EntryRow } from "../../ui/EntryRow"
import { Part, type PartProps, Pick } from "./Part"
import type { Values } from "./values"
import { YearRing } from "./YearRing"

const NAMES =
  "January February March April May June July August September October November December".split(" ")
const LAST = [31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]
const two = (n: number) => String(n).padStart(2, "0")
const said = (day: string) => `${Number(day.slice(3))} ${NAMES[Number(day.slice(0, 2)) - 1] ?? ""}`
const FROM = NAMES.flatMap((_, i) => [`${two(i + 1)}-01`, `${two(i + 1)}-16`])
const TO = NAMES.flatMap((_, i) => [`${two(i + 1)}-15`, `${two(i + 1)}-${LAST[i] ?? 30}`])
const NO_WINTER = { season_from: "03-01", season_to: "10-31" }

/** When it is fed: the year first, and what else must be so. */
export function When({ values: v, set, problem }: PartProps) {
  const all = !v.season_from && !v.season_to
  const winter = v.season_from === NO_WINTER.season_from && v.season_to === NO_WINTER.season_to
  const wrong = problem["season/0"] ?? problem["season/1"] ?? problem.season_from ?? problem.warm_C
  return (
    <Part title="When" problem={wrong}>
      <YearRing from={v.season_from} to={v.season_to} />
      <Pick
        name="season"
        checked={all}
        onPick={() => set({ season_from: "", season_to: "" })}
        label="all year"
      />
      <Pick name="season" checked={winter} onPick={() => set(NO_WINTER)} label="none in winter" />
      <Pick
        name="season"
        checked={!all && !winter}
        onPick={() => set({ season_from: "04-01", season_to: "08-31" })}
        label="from and to"
      />
      {!all && !winter && (
        <Flex gap="3" css={{ "& > *": { flex: "1 1 120px" } }}>
          <Days
            label="First day"
            value={v.season_from}
            days={FROM}
            onChange={(season_from) => set({ season_from })}
          />
          <Days
            label="Last day"
            value={v.season_to}
            days={TO}
            onChange={(season_to) => set({ season_to })}
          />
        </Flex>
      )}
      <Box as="details" mt="1">
        <Text as="summary" cursor="pointer" minH="44px" py="2.5">
          Only while …
        </Text>
        <Choose
          label="Growth"
          value={v.growth}
          onChange={(x) => set({ growth: x as Values["growth"] })}
        >
          <option value="">does not matter</option>
          <option value="leaf forming">a leaf is forming</option>
          <option value="until made">until the growth is made</option>
          <option value="until spike">until a spike shows</option>
          <option value="from spike">from the spike on</option>
        </Choose>
        <Choose
          label="Bloom"
          value={v.bloom}
          onChange={(x) => set({ bloom: x as Values["bloom"] })}
        >
          <option value="">does not matter</option>
          <option value="not in bloom">not in bloom</option>
          <option value="until bloom">until it blooms</option>
          <option value="after bloom">after its bloom</option>
        </Choose>
        <EntryRow
          label="Last nights mean at least"
          unit="°C"
          value={v.warm_C}
          onChange={(warm_C) => set({ warm_C })}
        />
        <EntryRow
          label="Lamps burn at least"
          unit="h"
          value={v.lamps_h}
          onChange={(lamps_h) => set({ lamps_h })}
        />
        <Choose
          label="Place"
          value={v.reserve_only ? "reserve" : ""}
          onChange={(x) => set({ reserve_only: x === "reserve" })}
        >
          <option value="">does not matter</option>
          <option value="reserve">in reserve, not on show</option>
        </Choose>
      </Box>
      <Choose
        label="Outside that"
        value={v.outside}
        onChange={(x) => set({ outside: x as Values["outside"] })}
      >
        <option value="none">no feed, held with its reason</option>
        <option value="plain">plain water</option>
        <option value="step down">half as strong</option>
      </Choose>
    </Part>
  )
}

function Days({
  label,
  value,
  days,
  onChange,
}: {
  label: string
  value: string
  days: string[]
  onChange: (v: string) => void
}) {
  return (
    <Choose label={label} value={value} onChange={onChange}>
      {!days.includes(value) && <option value={value}>{said(value)}</option>}
      {days.map((d) => (
        <option key={d} value={d}>
          {said(d)}
        </option>
      ))}
    </Choose>
  )
}
