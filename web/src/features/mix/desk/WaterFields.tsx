import { Box, Button, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { waterReads } from "../../../ui/format"
import type { Draft } from "../draft"
import { Choose, EntryRow } from "../../../ui/EntryRow"

type Props = {
  waters: Schemas["MixWater"][]
  draft: Draft
  onChange: (d: Draft) => void
  problems: Record<string, string>
}

const shown = (w: Schemas["MixWater"]) => `${w.name}, ${waterReads(w)}`

/** One source, or parts of two and more. */
export function WaterFields({ waters, draft, onChange, problems }: Props) {
  const set = (part: Partial<Draft>) => onChange({ ...draft, ...part })
  const options = waters.map((w) => (
    <option key={w.id} value={w.id}>
      {shown(w)}
    </option>
  ))
  if (draft.blend.length === 0) {
    const second = waters.find((w) => w.id !== draft.water_id)
    return (
      <>
        <Choose
          label="Base water"
          value={String(draft.water_id)}
          onChange={(v) => set({ water_id: Number(v) })}
          problem={problems.water_id}
        >
          {options}
        </Choose>
        {second && (
          <Button
            size="sm"
            variant="outline"
            minH="40px"
            mb="3"
            onClick={() =>
              set({
                blend: [
                  { water_id: draft.water_id, share: "3" },
                  { water_id: second.id, share: "1" },
                ],
              })
            }
          >
            Blend it
          </Button>
        )}
      </>
    )
  }
  return (
    <Box as="fieldset" mb="2" minW="0">
      <Text as="legend" fontSize="sm" color="fg.muted">
        Base water, blended by parts
      </Text>
      {draft.blend.map((b, i) => {
        const update = (part: Partial<typeof b>) =>
          set({ blend: draft.blend.map((x, j) => (j === i ? { ...x, ...part } : x)) })
        return (
          <Flex key={i} gap="2" align="flex-end">
            <Box flex="2" minW="0">
              <Choose
                label={`Water ${i + 1}`}
                value={String(b.water_id)}
                onChange={(v) => update({ water_id: Number(v) })}
              >
                {options}
              </Choose>
            </Box>
            <Box flex="0 0 128px">
              <EntryRow
                label="Parts"
                unit=""
                value={b.share}
                onChange={(share) => update({ share })}
                problem={problems[`blend.${i}.share`]}
              />
            </Box>
          </Flex>
        )
      })}
      {problems.blend && (
        <Text role="alert" color="state.stop" fontSize="sm">
          {problems.blend}
        </Text>
      )}
      <Button
        size="sm"
        variant="outline"
        minH="40px"
        onClick={() => set({ blend: [], water_id: draft.blend[0]?.water_id ?? draft.water_id })}
      >
        One water only
      </Button>
    </Box>
  )
}
