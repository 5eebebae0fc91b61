import { Box, Button, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { day, figure, numberIn } from "../../../ui/format"
import { MeterChecked } from "./MeterChecked"

export type Open = { what: "check" | "edit" | "scale"; id: number } | { what: "new" } | null

export function Meter({
  meter: m,
  today,
  onOpen,
}: {
  meter: Schemas["MeterOut"]
  today: string
  onOpen: (what: "check" | "edit" | "scale") => void
}) {
  const c = m.calibration
  const working = {
    kind: "fetch" as const,
    key: `meter-${m.id}`,
    load: async () =>
      (
        await answer(
          client.GET("/api/meters/{meter_id}/calibration", {
            params: { path: { meter_id: m.id } },
          }),
        )
      ).working,
  }
  return (
    <Box borderWidth="1px" borderRadius="md" p="3">
      <Text fontWeight="semibold">{m.name}</Text>
      <Text fontSize="sm" color="fg.muted" data-own-unit>
        {m.unit}
        {m.unit === "ppm"
          ? ` (${m.scale === "unknown" || m.scale === null ? "scale not known" : `${m.scale} scale`})`
          : ""}{" "}
        ·{" "}
        {m.compensation === "none"
          ? "does not compensate"
          : m.compensation === "linear"
            ? `compensates by ${figure(m.alpha_pct_per_C)} % a degree`
            : "compensates as natural water"}
      </Text>
      {m.problem && (
        <Text color="state.stop" mt="1">
          {m.problem}
        </Text>
      )}
      {c ? (
        <>
          <Text mt="1">{c.sentence}</Text>
          <MeterChecked m={m} c={c} today={today} working={working} />
        </>
      ) : (
        <Text mt="1" color="fg.muted">
          Never checked: a usual pen’s 2 % is taken.
        </Text>
      )}
      {m.checks.length > 0 && (
        <Text mt="1" fontSize="sm" color="fg.muted">
          Last:{" "}
          {m.checks
            .slice(0, 2)
            .map((k) => {
              const own = k.standard_name === "own"
              const standard = own ? numberIn(k.standard_uS_cm, "µS/cm") : k.standard_name
              return `${figure(k.shown, 4)} in ${standard} on ${day(k.on, today)}`
            })
            .join("; ")}
        </Text>
      )}
      <Flex gap="2" mt="2" wrap="wrap">
        <Button
          size="sm"
          aria-label={`Check in a standard: ${m.name}`}
          onClick={() => onOpen("check")}
        >
          Check in a standard
        </Button>
        <Button
          size="sm"
          variant="outline"
          aria-label={`Which scale is it? ${m.name}`}
          onClick={() => onOpen("scale")}
        >
          Which scale is it?
        </Button>
        <Button
          size="sm"
          variant="outline"
          aria-label={`Change ${m.name}`}
          onClick={() => onOpen("edit")}
        >
          Change
        </Button>
      </Flex>
    </Box>
  )
}
