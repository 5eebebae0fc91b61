import { Box, Button, Flex, Input, NativeSelect, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { answer, client } from "../../../api/client"
import { useOptions } from "../../../api/queries"
import { Quantity } from "../../../ui/Quantity"

export type PartRow = { medium_id: string; parts: string }

/** A medium of parts (2:1:1) with the water a litre of it will hold; no part: the medium chosen above stands alone. */
export function MediumParts({
  parts,
  onParts,
  volume,
}: {
  parts: PartRow[]
  volume?: string
  onParts: (parts: PartRow[]) => void
}) {
  const media = useOptions()?.media ?? []
  const set = (i: number, change: Partial<PartRow>) =>
    onParts(parts.map((p, at) => (at === i ? { ...p, ...change } : p)))
  const body = { parts }
  const mixture = useQuery({
    queryKey: ["mixture", body],
    queryFn: () => answer(client.POST("/api/media/mixture", { body })),
    enabled: parts.length > 0 && parts.every((p) => p.parts.trim() !== ""),
    staleTime: Infinity,
  })
  const ready = parts.length > 1 && parts.every((p) => Number(p.parts) > 0)
  const filling = { parts, volume: volume ?? "", charged: null }
  const litres = useQuery({
    queryKey: ["medium-parts", filling],
    queryFn: () => answer(client.POST("/api/media/litres", { body: filling })),
    enabled: ready && filling.volume !== "",
    staleTime: Infinity,
  }).data
  return (
    <Box flexBasis="100%!" maxW="none!">
      {parts.map((p, i) => (
        <Flex key={i} gap="2" mt="2" align="center" maxW="420px">
          <Input
            aria-label={`Parts of medium ${i + 1}`}
            value={p.parts}
            onChange={(e) => set(i, { parts: e.target.value })}
            inputMode="decimal"
            w="72px"
            minH="44px"
            bg="bg.panel"
          />
          <NativeSelect.Root flex="1">
            <NativeSelect.Field
              aria-label={`Medium ${i + 1}`}
              value={p.medium_id}
              onChange={(e) => set(i, { medium_id: e.target.value })}
              bg="bg.panel"
              minH="44px"
            >
              {media.map((m) => (
                <option key={m.value} value={m.value}>
                  {m.label}
                </option>
              ))}
            </NativeSelect.Field>
            <NativeSelect.Indicator aria-hidden />
          </NativeSelect.Root>
          <Button
            type="button"
            size="sm"
            variant="ghost"
            minH="44px"
            aria-label={`Leave out medium ${i + 1}`}
            onClick={() => onParts(parts.filter((_, at) => at !== i))}
          >
            Out
          </Button>
        </Flex>
      ))}
      <Flex gap="3" align="center" mt="2" wrap="wrap">
        <Button
          type="button"
          size="sm"
          variant="outline"
          minH="44px"
          onClick={() =>
            onParts([...parts, { medium_id: media[parts.length]?.value ?? "perlite", parts: "1" }])
          }
        >
          {parts.length === 0 ? "Mix the medium of parts" : "Another part"}
        </Button>
        {mixture.isError && (
          <Text role="alert" color="state.stop">
            {mixture.error.message}
          </Text>
        )}
        {mixture.data && (
          <Text>
            {mixture.data.result.name} holds{" "}
            <Quantity
              label="Water the mixture holds"
              value={mixture.data.result.holds_mL_L}
              unit="mL/L"
              working={{ kind: "here", working: mixture.data.working }}
            />
          </Text>
        )}
        {litres && (
          <Text>
            {litres.result.litres.map((x, i) => (
              <span key={i}>
                {i > 0 ? ", " : "Fill with "}
                <Quantity
                  label={`Litres of part ${i + 1}`}
                  value={x}
                  unit="L"
                  working={{ kind: "here", working: litres.working }}
                />
              </span>
            ))}
          </Text>
        )}
      </Flex>
    </Box>
  )
}
