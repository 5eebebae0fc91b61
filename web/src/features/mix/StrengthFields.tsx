import { Box, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { figure } from "../../ui/format"
import type { Draft } from "./MixDesk"
import { Entry } from "./WhatFor"

type Mode = Draft["strength"]
const MODES: { mode: Mode; label: string; unit: string }[] = [
  { mode: "nitrogen", label: "Nitrogen", unit: "mg/L N" },
  { mode: "fraction", label: "Of the label", unit: "kept" },
  { mode: "ec_added", label: "EC added", unit: "µS/cm" },
  { mode: "ec_total", label: "EC in the can", unit: "µS/cm" },
]

const named = (dose: Schemas["Dose"] | undefined, mode: Mode): string => {
  if (!dose) return ""
  const value = { nitrogen: dose.nitrogen_mg_L, fraction: dose.fraction, ec_added: dose.ec_added_uS_cm, ec_total: dose.ec_total_uS_cm }[mode]
  if (value === null) return ""
  return mode === "fraction" ? figure(value, 3) : String(Math.round(value))
}

/** One strength with four names: set any one, the others follow. */
export function StrengthFields({ draft, onChange, dose, problem }: { draft: Draft; onChange: (d: Draft) => void; dose?: Schemas["Dose"]; problem?: string }) {
  const fraction = dose?.fraction
  return (
    <Box as="fieldset" mt="3">
      <Text as="legend" fontWeight="semibold">How strong</Text>
      <Text fontSize="sm" color="fg.muted" mb="1.5">Set any one, the others follow.</Text>
      {MODES.map(({ mode, label, unit }) => {
        const active = draft.strength === mode
        return (
          <Entry
            key={mode}
            label={label}
            unit={unit}
            active={active}
            value={active ? draft.value : named(dose, mode)}
            onChange={(value) => onChange({ ...draft, strength: mode, value })}
            problem={active ? problem : undefined}
          />
        )
      })}
      <Text fontSize="sm" color="fg.muted">
        {fraction === null || fraction === undefined ? "The label states no rate: its share is not known." : `Keeps ${figure(fraction * 100, 2)} % of the label rate.`}
      </Text>
    </Box>
  )
}
