import { Flex, Text } from "@chakra-ui/react"
import { LeafShape } from "./LeafShape"

const SIGNS = [
  { words: "formed before the change", formed: "formed before", dashed: false },
  { words: "begun before, opened after: weak", formed: "begun before", dashed: false },
  { words: "formed after, or no change", formed: "formed after", dashed: false },
  { words: "expected, growing or not measured", formed: "formed before", dashed: true },
] as const

/** What the signs of a line mean. */
export function Legend() {
  return (
    <Flex gap="4" wrap="wrap" px="3" py="2" borderTopWidth="1px">
      {SIGNS.map((s) => (
        <Flex key={s.words} align="center" gap="1">
          <svg width="16" height="22" aria-hidden="true">
            <LeafShape x={8} base={21} tall={18} formed={s.formed} dashed={s.dashed} />
          </svg>
          <Text fontSize="xs">{s.words}</Text>
        </Flex>
      ))}
      <Text fontSize="xs">
        Ticks: fed. Drop: flushed. Dots: its usual length. Shade: the time to judge.
      </Text>
    </Flex>
  )
}
