import { Button, Flex, Text } from "@chakra-ui/react"
import { useState } from "react"
import { answer, client, keyed } from "../../api/client"
import { Entry } from "../../ui/Entry"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"

/** The light of a place: hours of its lamp and one reading at the leaf. */
export function LightForm({ placeId }: { placeId: number }) {
  const [hours, setHours] = useState("")
  const [lux, setLux] = useState("")
  const [ppfd, setPpfd] = useState("")
  const notice = useNotice()
  const save = usePress(
    (_: null, key: string) =>
      answer(
        client.POST("/api/places/{place_id}/light", {
          params: { ...keyed(key), path: { place_id: placeId } },
          body: { hours: hours || null, lux: lux || null, ppfd: ppfd || null, light: "white lamp" },
        }),
      ),
    (found) => notice({ text: found.result.sentence }),
  )
  return (
    <form
      aria-label="Light of this place"
      onSubmit={(e) => {
        e.preventDefault()
        save.mutate(null)
      }}
    >
      <Flex gap="2" wrap="wrap" align="flex-end" mt="3">
        <Entry label="Lamp, hours a day" w="150px" numeric value={hours} onValue={setHours} />
        <Entry label="At the leaf, lux" w="150px" numeric value={lux} onValue={setLux} />
        <Entry label="or µmol/m² s" w="150px" numeric value={ppfd} onValue={setPpfd} />
        <Button type="submit" variant="outline" minH="48px" loading={save.isPending}>
          Save light
        </Button>
      </Flex>
      {save.error && (
        <Text role="alert" color="state.stop">
          {save.error.message}
        </Text>
      )}
    </form>
  )
}
