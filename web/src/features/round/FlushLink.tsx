import { Box } from "@chakra-ui/react"
import { Link } from "react-router"

/** From the round to the flush of a pot, pass by pass. */
export function FlushLink({ potId, code }: { potId: number; code: string }) {
  return (
    <Box asChild textDecoration="underline">
      <Link to={`/pots/${potId}`}>Walk through the flush of {code}, pass by pass</Link>
    </Box>
  )
}
