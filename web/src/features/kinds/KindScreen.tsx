import { amount } from "../../ui/format"
import { Button, Flex, Grid, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link, useParams } from "react-router"
import { Card, Loaded, PageHead } from "../../ui/Page"
import { useUndo } from "../../ui/useUndo"
import { type KindData, loadKind } from "./loadKind"
import { RuleForm } from "../../ui/RuleForm"
import { OwnFigures } from "./OwnFigures"
import { Bands } from "./Bands"
import { Rest } from "./Rest"
import { Beside } from "./Beside"

const kindQuery = (id: string) =>
  queryOptions({ queryKey: ["kinds", "one", id], queryFn: () => loadKind(id) })

/** A kind on one screen. */
export function KindScreen() {
  const id = useParams().id ?? ""
  return <Loaded query={useQuery(kindQuery(id))}>{(page) => <Kind page={page} />}</Loaded>
}

function Kind({ page }: { page: KindData }) {
  const p = page.profile
  const [editing, setEditing] = useState<"figures" | "kind" | "group" | null>(null)
  const close = () => setEditing(null)
  const undo = useUndo()
  return (
    <>
      <PageHead
        title={p.name}
        line={`${p.words.watering} Figures: ${page.source}. Confidence ${p.confidence}.`}
      >
        {page.own_id && (
          <Button
            variant="outline"
            minH="44px"
            onClick={() => page.own_id && undo("own figures", page.own_id)}
          >
            Back to the shipped figures
          </Button>
        )}
        <Button asChild variant="outline" minH="44px">
          <Link to={`/candidates?kind=${p.id}`}>Will it live here?</Link>
        </Button>
        <Button asChild variant="outline" minH="44px">
          <Link to={`/plans/edit?scope=kind&key=${p.id}`}>Feeding plan</Link>
        </Button>
        <Button variant="outline" minH="44px" onClick={() => setEditing("kind")}>
          Rule of this kind
        </Button>
        <Button variant="outline" minH="44px" onClick={() => setEditing("group")}>
          Rule of its group
        </Button>
        <Button data-new minH="44px" onClick={() => setEditing("figures")}>
          Use my own figures
        </Button>
      </PageHead>
      {page.own_id && (
        <Text mb="3">
          <b>These are your figures.</b> {page.own_word}
        </Text>
      )}
      {editing === "figures" && <OwnFigures page={page} onClose={close} />}
      {editing === "kind" && <RuleForm scope="kind" ruleKey={p.id} of={p.name} onClose={close} />}
      {editing === "group" && (
        <RuleForm scope="group" ruleKey={p.group} of={`the group “${p.group}”`} onClose={close} />
      )}
      <Grid
        templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1.4fr) minmax(0,1fr)" }}
        gap="4"
        alignItems="start"
      >
        <Flex direction="column" gap="4">
          <Bands page={page} />
          <Rest rest={p.rest} />
          {(p.words.note || p.words.disputed) && (
            <Card title="Worth knowing">
              {p.words.note && <Text>{p.words.note}</Text>}
              {p.words.disputed && (
                <Text mt="1">
                  <b>Growers differ:</b> {p.words.disputed}
                </Text>
              )}
            </Card>
          )}
          {(p.opt_in ?? []).length > 0 && (
            <Card title="Only if you choose it">
              {(p.opt_in ?? []).map((o) => (
                <Text key={o.route}>
                  <b>{o.route}</b>, up to {o.n_max_mg_L} mg/L N and{" "}
                  {amount(o.ec_ceiling_uS_cm, "µS/cm")}. {o.note}
                </Text>
              ))}
              <Text fontSize="sm" color="fg.muted">
                Choose a school that feeds this way at the pot. Never by default.
              </Text>
            </Card>
          )}
        </Flex>
        <Flex direction="column" gap="4">
          <Beside page={page} />
        </Flex>
      </Grid>
    </>
  )
}
