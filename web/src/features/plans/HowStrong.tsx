import { Box, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { figure } from "../../ui/format"
import { Choose, EntryRow } from "../../ui/EntryRow"
import { Counted } from "./Counted"
import { Part, type PartProps } from "./Part"
import type { Values } from "./values"

const UNITS: Record<string, string> = {
  fraction: "of the label",
  nitrogen: "mg/L N",
  ec_added: "µS/cm",
  ec_total: "µS/cm",
  dose: "g/L",
}
const FIRST: Record<string, string> = {
  fraction: "half",
  nitrogen: "40",
  ec_added: "300",
  ec_total: "500",
  dose: "0.5",
}

type Props = PartProps & { echo?: string; ahead?: Schemas["PlanOnPot"] }

/** How strong: one strength with its names; the vessel shows the nitrogen against what the kind takes. */
export function HowStrong({ values: v, set, problem, echo, ahead }: Props) {
  const nitrogen = ahead?.nitrogen_mg_L
  return (
    <Part
      title="How strong"
      problem={problem.value ?? problem.count ?? problem.products ?? problem.strength}
    >
      <Flex gap="4" align="flex-start">
        <Vessel mg_L={nitrogen ?? null} />
        <Box flex="1" minW="0">
          <Choose
            label="Told as"
            value={v.strength}
            onChange={(x) => set({ strength: x as Values["strength"], value: FIRST[x] ?? "" })}
          >
            <option value="">as strong as its kind likes</option>
            <option value="fraction">a share of the label</option>
            <option value="nitrogen">nitrogen</option>
            <option value="ec_added">EC added</option>
            <option value="ec_total">EC in all</option>
            <option value="dose">grams a litre</option>
            <option value="count">spoons or drops I weighed</option>
          </Choose>
          {v.strength === "count" && <Counted values={v} set={set} />}
          {v.strength && v.strength !== "count" && (
            <EntryRow
              label="Strength"
              unit={UNITS[v.strength] ?? ""}
              words={v.strength === "fraction"}
              value={v.value}
              onChange={(value) => set({ value })}
            />
          )}
          {echo && (
            <Text fontSize="sm" color="fg.muted">
              {echo}
            </Text>
          )}
          {nitrogen != null && (
            <Text fontSize="sm">
              About {figure(nitrogen)} mg/L N
              {ahead?.week_mg != null && `, ${figure(ahead.week_mg)} mg a week in the first pot`}
            </Text>
          )}
        </Box>
      </Flex>
      <EntryRow
        label="More than its kind likes, because"
        unit=""
        words
        value={v.beyond}
        onChange={(beyond) => set({ beyond })}
      />
    </Part>
  )
}

/** A vessel filled by nitrogen, 0 to 250 mg/L: pixels only. */
function Vessel({ mg_L }: { mg_L: number | null }) {
  const share = Math.min(1, (mg_L ?? 0) / 250)
  return (
    <Box asChild w="54px" flexShrink="0" color="fg">
      <svg
        viewBox="0 0 54 130"
        role="img"
        aria-label={mg_L === null ? "Nitrogen not known" : `${figure(mg_L)} mg/L of nitrogen`}
      >
        <path d="M8 6 L14 124 L40 124 L46 6" fill="none" stroke="currentColor" strokeWidth="2" />
        <clipPath id="plan-vessel">
          <path d="M8 6 L14 124 L40 124 L46 6 Z" />
        </clipPath>
        <rect
          x="0"
          y={124 - 118 * share}
          width="54"
          height={118 * share}
          clipPath="url(#plan-vessel)"
          fill="var(--chakra-colors-leaf)"
        />
      </svg>
    </Box>
  )
}
