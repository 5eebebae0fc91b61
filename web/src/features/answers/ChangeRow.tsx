import { Box, Grid, Text } from "@chakra-ui/react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { day } from "../../ui/format"
import { GradeWord } from "./Grade"
import { change, range } from "./words"

/** A change in a line: where, what, how sure, how much. */
export function ChangeRow({ row, today }: { row: Schemas["AnswerBrief"]; today: string }) {
  const known = row.middle_shown !== null
  return (
    <Grid
      templateColumns={{ base: "minmax(0,1fr) auto", md: "70px minmax(0,1fr) 150px 84px" }}
      columnGap="3"
      borderTopWidth="1px"
      py="1.5"
      alignItems="baseline"
    >
      <Text color="fg.muted" fontSize="sm">
        {day(row.on, today)}
      </Text>
      <Box minW="0" gridColumn={{ base: "1 / -1", md: "auto" }}>
        <Link
          to={`/answer/${row.pot_id}?change=${encodeURIComponent(row.key)}`}
          style={{
            textDecoration: "underline",
            display: "inline-block",
            paddingBlock: 9,
            marginBlock: 0,
          }}
        >
          {row.code}: {row.words}
        </Link>
        <Text fontSize="sm" color="fg.muted">
          {row.sentence}
        </Text>
      </Box>
      <Text fontSize="sm">
        {known
          ? `${change(row.middle_shown, row.unit)} (${range(row.low_shown, row.high_shown, row.unit)})`
          : ""}
      </Text>
      <GradeWord grade={row.grade} />
    </Grid>
  )
}
