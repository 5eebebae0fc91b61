import { amount, span } from "../../ui/format"
import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useState } from "react"
import { Choice } from "../../ui/Choice"
import { Entry } from "../../ui/Entry"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import type { Asked } from "../look/queries"
import { Toggle } from "../look/Toggle"
import { BrownPart } from "./BrownPart"
import type { Photo } from "./queries"
import type { Mode } from "./Tapped"
import { useMeasured } from "./useMeasured"
import type { Taps } from "./useTaps"

const MODES: [Mode, string][] = [
  ["rim", "Scale"],
  ["midrib", "Length"],
  ["outline", "Brown"],
  ["grey", "Grey card"],
]

/** What the taps give, and the leaf it belongs to. */
export function MeasurePanel({
  photo,
  rim_mm,
  asked,
  taps,
}: {
  photo: Photo
  rim_mm: number | null
  asked: Asked
  taps: Taps
}) {
  const [leaf, setLeaf] = useState(String(asked.leaves[0]?.id ?? ""))
  const { found, length, problem, save, saveScale } = useMeasured(photo, taps, leaf)
  return (
    <Card label="Measure">
      <Flex gap="2" mb="3" wrap="wrap" role="group" aria-label="Tap for">
        {MODES.map(([mode, label]) => (
          <Toggle key={mode} on={taps.mode === mode} onPress={() => taps.setMode(mode)}>
            {label}
          </Toggle>
        ))}
      </Flex>
      <Flex gap="2" mb="3">
        <Button variant="outline" minH="44px" onClick={taps.back}>
          Undo tap
        </Button>
        <Button variant="outline" minH="44px" onClick={taps.clear}>
          Clear
        </Button>
      </Flex>
      <Entry
        label="Length between the two taps"
        unit="mm"
        numeric
        placeholder={rim_mm === null ? "" : `${amount(rim_mm, "mm")}, the rim of the pot`}
        value={taps.known}
        onValue={taps.setKnown}
      />
      {problem && (
        <Text role="alert" color="state.stop" mb="2">
          {problem}
        </Text>
      )}
      {found && (
        <Text fontSize="sm" color="fg.muted">
          {found.scale.result.sentence}
        </Text>
      )}
      {length && (
        <Box mt="2">
          <Text fontSize="2rem" fontWeight="semibold">
            <Quantity
              label="Length of the leaf"
              value={Math.round(length.result.mm)}
              unit="mm"
              working={{ kind: "here", working: length.working }}
            />
          </Text>
          <Text>
            Four in five times between{" "}
            {span(Math.round(length.result.low_mm), length.result.high_mm, "mm", "and")}.
          </Text>
          {length.working.cautions.map((c) => (
            <Text key={c} color="state.caution">
              {c}
            </Text>
          ))}
        </Box>
      )}
      <Flex gap="2" wrap="wrap" mt="3" align="center">
        <Choice
          label="Leaf"
          value={leaf}
          choices={asked.leaves.map((l) => ({ value: String(l.id), label: `Leaf ${l.number}` }))}
          onValue={setLeaf}
        />
        {found && !length && (
          <Button
            minH="48px"
            variant="outline"
            loading={saveScale.isPending}
            onClick={() => saveScale.mutate(null)}
          >
            Save the scale
          </Button>
        )}
        {length && (
          <>
            <Button minH="48px" loading={save.isPending} onClick={() => save.mutate(false)}>
              Save, finished
            </Button>
            <Button minH="48px" variant="outline" onClick={() => save.mutate(true)}>
              Save, still growing
            </Button>
          </>
        )}
      </Flex>
      <BrownPart photo={photo} leaf={leaf} taps={taps} />
    </Card>
  )
}
