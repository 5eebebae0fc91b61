import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useRef, useState } from "react"
import { keepPreviousData, useQuery } from "@tanstack/react-query"
import { useNavigate, useSearchParams } from "react-router"
import { useForm, useWatch } from "react-hook-form"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { mixQuery } from "../../api/queries"
import { ApiProblem } from "../../api/problem"
import { Loaded, PageHead } from "../../ui/Page"
import { useSettled } from "../../ui/useLiveForm"
import { usePress } from "../../ui/usePress"
import { HowGiven } from "./HowGiven"
import { HowOften } from "./HowOften"
import { HowStrong } from "./HowStrong"
import { plansQuery, startsQuery } from "./queries"
import { bodyOf, type Plan, type PlanIn, type Scope, type Values, valuesOf } from "./values"
import { Weeks } from "./Weeks"
import { WhatWith } from "./WhatWith"
import { When } from "./When"
import { WhoFor } from "./WhoFor"

/** One plan: the sentence above, each part of it with its instrument, and the coming weeks below. */
export function EditPlan() {
  const [params] = useSearchParams()
  const scope = (params.get("scope") ?? "all") as Scope
  const key = params.get("key") ?? ""
  const start = params.get("start")
  const starts = useQuery(startsQuery).data
  const mix = useQuery(mixQuery)
  return (
    <Loaded query={useQuery(plansQuery)}>
      {(plans) => {
        if (!mix.data || (start && !starts)) return <Text role="status">One moment.</Text>
        const kept = plans.find((p) => p.scope === scope && p.key === key)
        const from = starts?.find((s) => s.name === start) ?? kept
        return (
          <Editor
            key={`${scope}${key}${start ?? ""}`}
            plan={from?.plan ?? {}}
            seen={kept?.id ?? 0}
            said={from?.value_said ?? ""}
            scope={scope}
            of={key}
            mix={mix.data}
          />
        )
      }}
    </Loaded>
  )
}

type EditorProps = {
  plan: Partial<Plan>
  seen: number // the plan in force when this opened; 0: none
  said: string
  scope: Scope
  of: string
  mix: Schemas["MixPage"]
}

function Editor({ plan, seen: kept, said, scope, of, mix }: EditorProps) {
  const go = useNavigate()
  const [opened] = useState(kept) // as it was opened: the page beside it may be asked for anew meanwhile
  const form = useForm<Values>({ defaultValues: valuesOf(plan, said, scope, of) })
  const values = useWatch({ control: form.control }) as Values
  const asked = useSettled(JSON.stringify(bodyOf(values)), 250)
  const preview = useQuery({
    queryKey: ["live", "plan", asked],
    queryFn: () =>
      answer(client.POST("/api/plans/preview", { body: JSON.parse(asked) as PlanIn })) as Promise<
        Schemas["PlanPreview"]
      >,
    placeholderData: keepPreviousData,
    retry: false,
  })
  const problem = preview.error instanceof ApiProblem ? preview.error : null
  const theirs = useRef<number>(undefined) // what another saved meanwhile, once it was told
  const save = usePress(
    (body: Values, key: string) =>
      answer(
        client.POST("/api/plans", {
          params: keyed(key),
          body: { ...bodyOf(body), seen: theirs.current ?? opened },
        }),
      ),
    () => void go("/plans"),
    (problem) => (theirs.current = problem.now()["seen"] as number | undefined),
  )
  const set = (change: Partial<Values>) => {
    for (const [name, value] of Object.entries(change))
      form.setValue(name as keyof Values, value as never)
  }
  const shared = { values, set, problem: problem?.fields() ?? {} }
  const seen = preview.data
  return (
    <>
      <PageHead
        title="Feeding plan"
        line={
          seen &&
          `Rules ${seen.ruled} ${seen.ruled === 1 ? "pot" : "pots"}; ${seen.feeds_then} feeds in twelve weeks, ${seen.feeds_now} as it is now.`
        }
      >
        <Button variant="outline" minH="44px" data-back onClick={() => void go(-1)}>
          Cancel
        </Button>
        <Button
          minH="44px"
          data-key="Enter"
          loading={save.isPending}
          disabled={!!problem}
          onClick={() => save.mutate(values)}
        >
          Save
        </Button>
      </PageHead>
      <Text fontSize="xl" fontWeight="semibold" mb="3" role="status" aria-live="polite">
        {problem ? problem.message : seen?.sentence}
      </Text>
      {save.isError && (
        <Text role="alert" color="state.stop" mb="3">
          {save.error.message}
        </Text>
      )}
      <Grid
        templateColumns={{
          base: "minmax(0,1fr)",
          md: "repeat(2, minmax(0,1fr))",
          xl: "repeat(3, minmax(0,1fr))",
        }}
        gap="3"
        mb="4"
        alignItems="start"
      >
        <Flex direction="column" gap="3">
          <WhoFor {...shared} of={seen?.of ?? ""} waiting={seen?.waiting ?? []} />
          <HowStrong {...shared} echo={seen?.echo} ahead={seen?.pots[0]?.ahead} />
        </Flex>
        <When {...shared} />
        <Flex direction="column" gap="3">
          <HowOften {...shared} />
          <WhatWith {...shared} mix={mix} />
          <HowGiven {...shared} />
        </Flex>
      </Grid>
      {seen ? <Weeks page={seen} /> : <Box minH="200px" />}
      <Flex h="2" />
    </>
  )
}
