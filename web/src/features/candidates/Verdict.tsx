import { type Unit } from "../../ui/format"
import { Box, Text } from "@chakra-ui/react"
import { SpanBar } from "./SpanBar"
import type { Judged } from "./candidate"

const AXES: Record<string, { from: number; to: number; unit?: Unit }> = {
  air: { from: 0, to: 100 },
  nights: { from: 0, to: 32, unit: "°C" },
}
const COLOURS: Record<string, string> = {
  fits: "state.good",
  "with help": "state.caution",
  misfit: "state.stop",
}

/** Each thing a kind asks, the worst first: what is here, what helps and what it costs. */
export function Verdict({ judged }: { judged: Judged }) {
  return (
    <>
      <Text fontWeight="semibold" color={COLOURS[judged.fit]} role="status">
        {judged.sentence}
      </Text>
      {judged.aspects.map((a) => {
        const axis = AXES[a.name]
        return (
          <Box key={a.name} borderTopWidth="1px" mt="2" pt="2">
            <Text fontWeight="semibold">
              {a.name}: {a.fit}
            </Text>
            {axis && a.asks && (
              <SpanBar
                label={`${a.name}: ${a.line}`}
                from={axis.from}
                to={axis.to}
                asks={a.asks}
                has={a.has}
                unit={axis.unit}
              />
            )}
            <Text>{a.line}</Text>
            {a.remedy && (
              <Text color="fg.muted">
                {a.remedy} {a.cost}
              </Text>
            )}
          </Box>
        )
      })}
    </>
  )
}
