import { Box, Button, Grid, Heading, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { useSearchParams } from "react-router"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { SelectField, TextField, TickField } from "../../ui/fields"
import { useNotice } from "../../ui/noticeContext"
import { Card, Loaded, PageHead } from "../../ui/Page"
import { usePress } from "../../ui/usePress"
import { useLiveForm } from "../../ui/useLiveForm"
import { useUndo } from "../../ui/useUndo"
import { FitCard } from "./FitCard"
import { Kept } from "./Kept"
import { Verdict } from "./Verdict"
import type { Judged } from "./candidate"

type Values = {
  name: string
  profile_id: string
  humidity_low: string
  humidity_high: string
  night: string
  pets: boolean
}
const kindsQuery = queryOptions({
  queryKey: ["kinds", "list"],
  queryFn: () => answer(client.GET("/api/kinds")),
})

/** In the shop: will it live here? Judged before any pot exists. */
export function Screen() {
  return <Loaded query={useQuery(kindsQuery)}>{(kinds) => <Judge kinds={kinds} />}</Loaded>
}

function Judge({ kinds }: { kinds: Schemas["KindRow"][] }) {
  const asked = useSearchParams()[0].get("kind") ?? "unknown"
  const notice = useNotice()
  const undo = useUndo()
  const live = useLiveForm<Values, { result: Judged }>(
    `candidate-${asked}`,
    {
      name: "",
      profile_id: asked,
      humidity_low: "",
      humidity_high: "",
      night: "",
      pets: false,
    },
    ({ name, ...v }) => {
      void name // it names what is kept, and judges nothing
      return answer(client.POST("/api/candidates/judge", { body: v }))
    },
  )
  const keep = usePress(
    (_: null, key) =>
      answer(client.POST("/api/candidates", { params: keyed(key), body: live.values })),
    (stored: Schemas["Stored"]) =>
      notice({ text: `${live.values.name} is saved.`, undo: () => undo("candidate", stored.id) }),
  )
  const f = live.form
  return (
    <>
      <PageHead
        title="Will it live here?"
        line="A plant in the shop against the air, the nights and the waters of this home. It makes no pot and no job."
      />
      <Grid
        templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) minmax(0,1.2fr)" }}
        gap="4"
        alignItems="start"
      >
        <Card title="The plant and the home">
          <Grid templateColumns="repeat(auto-fit, minmax(180px, 1fr))" gap="3">
            <SelectField
              form={f}
              name="profile_id"
              label="Kind of plant"
              choices={kinds.map((k) => ({ value: k.id, label: k.name }))}
              hint="Unknown: judged by the strictest."
            />
            <TextField form={f} name="name" label="What its tag says" />
            <TextField form={f} name="humidity_low" label="Air, driest" unit="%" numeric />
            <TextField form={f} name="humidity_high" label="Air, moistest" unit="%" numeric />
            <TextField
              form={f}
              name="night"
              label="Coldest nights"
              unit="°C"
              hint="Empty: not measured."
              numeric
            />
            <TickField form={f} name="pets" label="Pets live here" />
          </Grid>
          {keep.isError && (
            <Text role="alert" color="state.stop" mt="2">
              {keep.error.message}
            </Text>
          )}
          <Button mt="3" minH="44px" loading={keep.isPending} onClick={() => keep.mutate(null)}>
            Save
          </Button>
        </Card>
        <Card title="The verdict">
          <Box aria-live="polite">
            {live.problem && (
              <Text role="alert" color="state.stop">
                {live.problem}
              </Text>
            )}
            {live.answer && <Verdict judged={live.answer.result} />}
          </Box>
        </Card>
      </Grid>
      <FitCard kind={live.values.profile_id} pets={live.values.pets} />
      <Heading as="h2" fontSize="md" fontWeight="semibold" mt="5" mb="2">
        Saved, side by side
      </Heading>
      <Kept />
    </>
  )
}
