import { Box, Flex, NativeSelect, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { useOptions } from "../../../api/queries"
import { figure } from "../../../ui/format"
import type { Draft, Mode } from "../draft"
import { EntryRow } from "../../../ui/EntryRow"

const MODES: { mode: Mode; label: string; unit: string }[] = [
  { mode: "nitrogen", label: "Nitrogen", unit: "mg/L N" },
  { mode: "fraction", label: "Of the label", unit: "kept" },
  { mode: "ec_added", label: "EC added", unit: "µS/cm" },
  { mode: "ec_total", label: "EC in the can", unit: "µS/cm" },
]
const NAME: Record<string, string> = {
  P: "Phosphorus",
  K: "Potassium",
  Ca: "Calcium",
  Mg: "Magnesium",
  S: "Sulfur",
  Fe: "Iron",
  Mn: "Manganese",
  Zn: "Zinc",
  Cu: "Copper",
  B: "Boron",
  Mo: "Molybdenum",
}

const named = (dose: Schemas["Dose"] | undefined, mode: Mode): string => {
  if (!dose) return ""
  const all: Partial<Record<Mode, number | null>> = {
    nitrogen: dose.nitrogen_mg_L,
    fraction: dose.fraction,
    ec_added: dose.ec_added_uS_cm,
    ec_total: dose.ec_total_uS_cm,
  }
  const value = all[mode]
  if (value === null || value === undefined) return ""
  return mode === "fraction"
    ? figure(value, 3)
    : value < 10
      ? figure(value, 2)
      : String(Math.round(value))
}

type Props = {
  draft: Draft
  onChange: (d: Draft) => void
  dose?: Schemas["Dose"]
  echo?: string
  most?: number | null
  problem?: string
}

/** One strength with its names: set any one, the others follow; the slider drags the nitrogen. */
export function StrengthFields({ draft, onChange, dose, echo, most, problem }: Props) {
  const fraction = dose?.fraction
  return (
    <Box as="fieldset" mt="3" minW="0">
      <Text as="legend" fontWeight="semibold">
        How strong
      </Text>
      <Text fontSize="sm" color="fg.muted" mb="1.5">
        Set any one, the others follow. A share may be typed as 1/4 or “reduce by 3/4”.
      </Text>
      {MODES.map(({ mode, label, unit }) => {
        const active = draft.strength === mode
        return (
          <EntryRow
            key={mode}
            label={label}
            unit={unit}
            active={active}
            words={mode === "fraction"}
            value={active ? draft.value : named(dose, mode)}
            onChange={(value) => onChange({ ...draft, strength: mode, value })}
            problem={active ? problem : undefined}
          />
        )
      })}
      <ByElement
        draft={draft}
        onChange={onChange}
        dose={dose}
        problem={draft.strength === "element" ? problem : undefined}
      />
      {dose && dose.nitrogen_mg_L > 0 && (
        <input
          type="range"
          aria-label="Drag the nitrogen"
          min={0}
          max={Math.ceil(Math.max(most ?? 0, dose.nitrogen_mg_L * 1.5, 60))}
          step={1}
          value={Math.round(dose.nitrogen_mg_L)}
          onChange={(e) => onChange({ ...draft, strength: "nitrogen", value: e.target.value })}
          style={{ width: "100%", minHeight: 44 }}
        />
      )}
      <Text fontSize="sm" color="fg.muted">
        {echo ||
          (fraction === null || fraction === undefined
            ? "The label states no rate: its share is not known."
            : `Keeps ${figure(fraction * 100, 2)} % of the label rate.`)}
      </Text>
    </Box>
  )
}

function ByElement({
  draft,
  onChange,
  dose,
  problem,
}: {
  draft: Draft
  onChange: (d: Draft) => void
  dose?: Schemas["Dose"]
  problem?: string
}) {
  const elements = (useOptions()?.elements ?? ["N", "K"]).filter((e) => e !== "N")
  const active = draft.strength === "element"
  const level = dose?.elements.find((e) => e.name === NAME[draft.element])
  return (
    <Flex gap="1.5" align="flex-start">
      <NativeSelect.Root w="76px" flexShrink="0">
        <NativeSelect.Field
          aria-label="Element"
          value={draft.element}
          onChange={(e) => onChange({ ...draft, element: e.target.value })}
          minH="46px"
        >
          {elements.map((e) => (
            <option key={e}>{e}</option>
          ))}
        </NativeSelect.Field>
        <NativeSelect.Indicator aria-hidden />
      </NativeSelect.Root>
      <Box flex="1" minW="0">
        <EntryRow
          label="Amount"
          unit="mg/L"
          active={active}
          value={active ? draft.value : level ? figure(level.from_feed_mg_L, 2) : ""}
          onChange={(value) => onChange({ ...draft, strength: "element", value })}
          problem={problem}
        />
      </Box>
    </Flex>
  )
}
