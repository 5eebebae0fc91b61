import { Text } from "@chakra-ui/react"
import { useQuery, useQueryClient } from "@tanstack/react-query"
import { useEffect, useRef } from "react"
import { askAnew } from "../api/askAnew"
import { foldingQuery } from "../api/queries"

/** Logs that are read anew after an update: how far that is; each piece that is done shows its pots. */
export function FoldingLine() {
  const client = useQueryClient()
  const sentence = useQuery(foldingQuery).data?.sentence ?? ""
  const before = useRef("")
  useEffect(() => {
    if (before.current && before.current !== sentence) void askAnew(client)
    before.current = sentence
  }, [sentence, client])
  if (!sentence) return null
  return (
    <Text role="status" fontSize="sm" mb="3">
      {sentence}
    </Text>
  )
}
