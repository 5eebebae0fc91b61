import { Text } from "@chakra-ui/react"
import { useOptions } from "../api/queries"

/** What to mind where the hand is: one line, once on a page. */
export function Mind({
  of,
}: {
  of: "feed" | "stock" | "pump" | "lamp" | "disposal" | "treatment" | "water"
}) {
  const lines: Record<string, string> | undefined = useOptions()?.safety
  const line = lines?.[of]
  return line ? (
    <Text role="note" fontSize="sm" color="fg.muted" mt="2">
      <b>Mind:</b> {line}
    </Text>
  ) : null
}
