import { Button, Flex } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { answer, client, keyed } from "../../api/client"
import { useOptions } from "../../api/queries"
import { Choice } from "../../ui/Choice"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"
import { waters as watersQuery } from "./useSums"
import type { WaterValues } from "./sum"

/** A sum becomes a reading of one of the waters of the collection, where there is one. */
export function SaveReading({ values }: { values: WaterValues }) {
  const notice = useNotice()
  const undo = useUndo()
  const today = useOptions()?.today ?? ""
  const waters = useQuery(watersQuery).data?.waters ?? []
  const [chosen, setChosen] = useState("")
  const id = chosen || String(waters[0]?.id ?? "")
  const save = usePress(
    (water_id: number, key) =>
      answer(
        client.POST("/api/waters/{water_id}/readings", {
          params: { ...keyed(key), path: { water_id } },
          body: {
            on: today,
            value: values.value,
            unit: values.unit as "ppm",
            scale: values.unit === "ppm" ? (values.scale as "0.5") || "unknown" : null,
            temperature_unit: "°C",
            compensated: true,
            amounts: [],
            origin: "typed",
            trace: [],
            note: "",
          },
        }),
      ),
    (stored) => notice({ text: "Saved as a reading.", undo: () => undo("reading", stored.id) }),
  )
  if (waters.length === 0) return null
  return (
    <Flex gap="2" mt="3" wrap="wrap" align="center">
      <Button
        variant="outline"
        minH="44px"
        loading={save.isPending}
        onClick={() => save.mutate(Number(id))}
      >
        Save as a reading
      </Button>
      <Choice
        label="Reading of"
        value={id}
        onValue={setChosen}
        choices={waters.map((w) => ({ value: String(w.id), label: w.name }))}
      />
    </Flex>
  )
}
