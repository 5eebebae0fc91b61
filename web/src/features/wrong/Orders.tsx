import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import { answer, client, keyed } from "../../api/client"
import { Quantity } from "../../ui/Quantity"
import { usePress } from "../../ui/usePress"
import { CauseLines } from "./CauseLines"
import type { Letters } from "./letters"
import type { Wrong } from "./queries"

type Props = { page: Wrong; letters: Letters }
type Two = NonNullable<Wrong["readings"]>

/** One order, where growers do not read the signs two ways. */
export function OneOrder({ page, letters }: Props) {
  return (
    <>
      {page.shown.map((c, i) => (
        <CauseLines key={c.id} cause={c} first={i === 0} letters={letters} today={page.today} />
      ))}
      <Below page={page} />
    </>
  )
}

/** Two ways to read a sign side by side: the same evidence, two orders, none crowned. */
export function TwoOrders({ page, letters }: Props) {
  const two = page.readings as Two
  return (
    <>
      <Grid templateColumns={{ base: "minmax(0,1fr)", md: "minmax(0,1fr) minmax(0,1fr)" }} gap="5">
        {([two.first, two.second] as const).map((s) => (
          <Box key={s.school} minW="0">
            <Flex justify="space-between" gap="2" align="flex-start">
              <Box>
                <Text fontWeight="semibold" fontSize="md">
                  {s.name}
                </Text>
                <Text fontSize="sm" color="fg.muted">
                  {s.says}
                </Text>
              </Box>
              <Follow page={page} school={s.school} name={s.name} />
            </Flex>
            {s.causes.map((c, i) => (
              <CauseLines
                key={c.id}
                cause={c}
                first={i === 0}
                letters={letters}
                today={page.today}
              />
            ))}
          </Box>
        ))}
      </Grid>
      <Text mt="2">
        {two.agree ? "Both readings agree on the first. " : "The two readings differ. "}
        What separates them: {two.separated_by}
      </Text>
      <Below page={page} />
    </>
  )
}

function Below({ page }: { page: Wrong }) {
  return (
    <>
      {page.together && (
        <Text mt="2" fontWeight="semibold">
          {page.together}
        </Text>
      )}
      {page.excluded.map((c) => (
        <Text key={c.id} fontSize="sm" color="fg.muted">
          Excluded for this sign: {c.name}. {c.speaks_against[0]?.words}
        </Text>
      ))}
      <Text fontSize="sm" color="fg.muted" mt="1">
        Signs seen:{" "}
        <Quantity
          label="How the causes were weighed"
          value={page.signs.length}
          unit=""
          working={{ kind: "here", working: page.working }}
        />
        . What the log supports, no verdict.
      </Text>
    </>
  )
}

function Follow({ page, school, name }: { page: Wrong; school: string; name: string }) {
  const two = page.readings as Two
  const chosen = page.case?.reading === two.id && page.case.school === school
  const follow = usePress((_: null, key: string) =>
    answer(
      client.POST("/api/cases", {
        params: keyed(key),
        body: {
          pot_id: page.pot_id,
          reading: two.id,
          school: school === "first" ? "first" : "second",
          note: "",
        },
      }),
    ),
  )
  return (
    <Button
      variant={chosen ? "solid" : "outline"}
      minH="44px"
      aria-pressed={chosen}
      aria-label={`Follow ${name}`}
      loading={follow.isPending}
      onClick={() => follow.mutate(null)}
    >
      {chosen ? "Followed" : "Follow"}
    </Button>
  )
}
