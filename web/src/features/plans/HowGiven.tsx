import { Box, Text } from "@chakra-ui/react"
import { Choose, EntryRow } from "../../ui/EntryRow"
import { Part, type PartProps } from "./Part"
import type { Values } from "./values"

const ROUTES: { value: Values["route"]; label: string }[] = [
  { value: "", label: "as each pot is watered" },
  { value: "top", label: "from the top" },
  { value: "soak", label: "by soaking" },
  { value: "tray", label: "into the tray" },
  { value: "reservoir", label: "into the reservoir" },
  { value: "cup", label: "into the cup" },
  { value: "moss pole", label: "onto the moss pole" },
  { value: "leaf spray", label: "on the leaves" },
]

/** How it is given: at the root, or on the leaves; a thin spray may go beside the root feed. */
export function HowGiven({ values: v, set, problem }: PartProps) {
  const beside = Number(v.spray_days) > 0
  return (
    <Part title="How" problem={problem.spray_n_mg_L ?? problem.spray_days}>
      <Choose label="Given" value={v.route} onChange={(x) => set({ route: x as Values["route"] })}>
        {ROUTES.map((r) => (
          <option key={r.value} value={r.value}>
            {r.label}
          </option>
        ))}
      </Choose>
      {v.route !== "leaf spray" && (
        <Choose
          label="And on the leaves"
          value={beside ? "yes" : ""}
          onChange={(x) =>
            set(x ? { spray_days: 10, spray_n_mg_L: 25 } : { spray_days: 0, spray_n_mg_L: 0 })
          }
        >
          <option value="">no spray beside it</option>
          <option value="yes">a thin spray beside it</option>
        </Choose>
      )}
      {(beside || v.route === "leaf spray") && (
        <Box>
          {beside && (
            <>
              <EntryRow
                label="Every"
                unit="days"
                value={String(v.spray_days)}
                onChange={(x) => set({ spray_days: x as never })}
              />
              <EntryRow
                label="Nitrogen"
                unit="mg/L"
                value={String(v.spray_n_mg_L)}
                onChange={(x) => set({ spray_n_mg_L: x as never })}
              />
            </>
          )}
          <EntryRow
            label="At"
            unit=""
            words
            value={v.spray_when}
            onChange={(spray_when) => set({ spray_when })}
          />
          <EntryRow
            label="Before lamps out"
            unit="min"
            value={String(v.spray_before_dark_min)}
            onChange={(x) => set({ spray_before_dark_min: x as never })}
          />
          <Text fontSize="sm" color="fg.muted">
            Leaves of most kinds should be dry by night.
          </Text>
        </Box>
      )}
    </Part>
  )
}
