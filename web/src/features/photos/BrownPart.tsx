import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { answer, client, keyed } from "../../api/client"
import { Entry } from "../../ui/Entry"
import { Quantity } from "../../ui/Quantity"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { useUndo } from "../../ui/useUndo"
import type { Photo } from "./queries"
import type { Taps } from "./useTaps"

const USUAL = { green_from: 117, yellow_from: 85, brown_below: 0.62, grey_below: 0.03 }
const SLIDERS = [
  { name: "green_from", label: "Green from hue", low: 90, high: 150, step: 1 },
  { name: "yellow_from", label: "Yellow from hue", low: 60, high: 117, step: 1 },
  { name: "brown_below", label: "Brown below lightness", low: 0.3, high: 0.9, step: 0.01 },
] as const

/** Brown and yellow inside a traced outline; the thresholds can be moved, the figures corrected. */
export function BrownPart({ photo, leaf, taps }: { photo: Photo; leaf: string; taps: Taps }) {
  const [thresholds, setThresholds] = useState(USUAL)
  const [brown, setBrown] = useState("")
  const notice = useNotice()
  const undo = useUndo()
  const params = { path: { photo_id: photo.id } }
  const body = { outline: taps.outline, thresholds, grey_at: taps.grey[0] ?? null }
  const traced = taps.outline.length > 2
  const found = useQuery({
    queryKey: ["photos", "marks", photo.id, body],
    queryFn: () => answer(client.POST("/api/photos/{photo_id}/marks/preview", { params, body })),
    enabled: traced,
    retry: false,
    placeholderData: (last) => last,
  })
  const save = usePress(
    (old: boolean, key: string) =>
      answer(
        client.POST("/api/photos/{photo_id}/marks", {
          params: { ...params, ...keyed(key) },
          body: { ...body, leaf_id: Number(leaf), brown_pct: brown || null, old },
        }),
      ),
    (stored) => notice({ text: "Mark saved.", undo: () => undo("mark", stored.id) }),
  )
  if (!traced) return null
  const shares = found.data?.result
  return (
    <Box mt="4" borderTopWidth="1px" pt="3" role="group" aria-label="Brown and yellow">
      {found.error && (
        <Text role="alert" color="state.stop">
          {found.error.message}
        </Text>
      )}
      {shares && found.data && (
        <>
          <Flex h="18px" borderRadius="sm" overflow="hidden" aria-hidden="true">
            <Box w={`${shares.brown}%`} bg="leafBrown" />
            <Box w={`${shares.yellow}%`} bg="leafYellow" />
            <Box w={`${shares.green}%`} bg="leaf" />
          </Flex>
          <Text mt="1">
            <Quantity
              label="Brown share of the blade"
              value={shares.brown}
              unit="% brown"
              working={{ kind: "here", working: found.data.working }}
            />
            , {Math.round(shares.yellow)} % yellow, {Math.round(shares.green)} % green.
          </Text>
        </>
      )}
      {SLIDERS.map((s) => (
        <Box asChild key={s.name} fontSize="sm" mt="1">
          <label>
            {s.label}: {thresholds[s.name]}
            <input
              type="range"
              min={s.low}
              max={s.high}
              step={s.step}
              value={thresholds[s.name]}
              style={{ width: "100%", minHeight: 32 }}
              onChange={(e) => setThresholds({ ...thresholds, [s.name]: Number(e.target.value) })}
            />
          </label>
        </Box>
      ))}
      <Flex gap="2" mt="2" wrap="wrap" align="flex-end">
        <Entry
          label="Brown, corrected, %"
          w="150px"
          numeric
          placeholder={shares ? String(Math.round(shares.brown)) : ""}
          value={brown}
          onValue={setBrown}
        />
        <Button minH="48px" loading={save.isPending} onClick={() => save.mutate(false)}>
          Save as new
        </Button>
        <Button minH="48px" variant="outline" onClick={() => save.mutate(true)}>
          Save as old scar
        </Button>
      </Flex>
      {save.error && (
        <Text role="alert" color="state.stop">
          {save.error.message}
        </Text>
      )}
    </Box>
  )
}
