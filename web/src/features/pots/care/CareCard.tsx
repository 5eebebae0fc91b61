import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link } from "react-router"
import { answer, client, type Schemas } from "../../../api/client"
import { day } from "../../../ui/format"
import { Card } from "../../../ui/Page"
import { Quantity } from "../../../ui/Quantity"
import { RuleForm } from "../../../ui/RuleForm"
import { CareForm } from "./CareForm"
import { ChangeHere } from "./ChangeHere"
import { ClimateForm } from "./ClimateForm"
import { FeltForm } from "./FeltForm"
import { PlaceForm } from "./PlaceForm"
import { ReadyForm } from "./ReadyForm"
import { TreatedForm } from "./TreatedForm"
import { WeightForm } from "./WeightForm"

const careQuery = (id: number) => queryOptions({ queryKey: ["pots", "one", id, "care"], queryFn: () => answer(client.GET("/api/pots/{pot_id}/care", { params: { path: { pot_id: id } } })) })

const READY = { water: "Wants water now.", wait: "Leave it today.", check: "To be checked." }

/** What rules the pot: phase, rhythm, days to the next look, water by weight. */
export function CareCard({ page }: { page: Schemas["PotPage"] }) {
  const care = useQuery(careQuery(page.row.id)).data
  const [open, setOpen] = useState<"care" | "place" | "weight" | "climate" | "ready" | "felt" | "changed" | "rule" | "treated" | null>(null)
  if (!care) return <Card title="Care"><Text role="status">One moment.</Text></Card>
  const { interval, next_feed: next, water } = care
  const close = () => setOpen(null)
  return (
    <Card title="Care">
      <Flex direction="column" gap="1.5">
        <Text><Link to={`/kinds/${page.profile_id}`}><Text as="span" textDecoration="underline" textUnderlineOffset="0.2em">{page.profile_name}</Text></Link>{page.own_figures ? ", by your own figures" : ""}</Text>
        <Text><b>{care.phase[0]?.toUpperCase()}{care.phase.slice(1)}</b>, by {care.phase_by}. <Text as="span" color="fg.muted">{care.phase_sentence}</Text></Text>
        <Text><b>Next watering: {next.result.job}.</b> <Text as="span" color="fg.muted">{next.result.sentence} {care.school && `(${care.school}${care.school_by === "no rule" ? "" : `, ${care.school_by}`})`}</Text></Text>
        {care.ready_by !== "days" && <Text><b>{READY[care.ready.result.state]}</b> <Text as="span" color="fg.muted">{care.ready.result.sentence}</Text></Text>}
        <Text>
          {interval.result.learnt_from ? `Learnt from ${interval.result.learnt_from} waterings: ` : "As set: "}
          {interval.result.word === "water" ? "usually after" : "check after"} <Quantity label="Days to the next look" value={interval.result.days} low={interval.result.low_days} high={interval.result.high_days} unit="days" working={{ kind: "here", working: interval.working }} />
          {care.interval_by === "set" && interval.result.learnt_from ? `; the round keeps your ${page.interval_days} days` : ""}
          {interval.result.next_on && interval.result.word === "check" ? `, ${day(interval.result.next_on, page.today)}.` : "."} {care.ready_by === "days" && <Text as="span" color="fg.muted">{interval.result.sentence}</Text>}
        </Text>
        {water && <Text>By weight <Quantity label="Water left" value={water.result.left_mL} unit="mL" working={{ kind: "here", working: water.working }} /> left. <Text as="span" color="fg.muted">{water.result.sentence}</Text></Text>}
      </Flex>
      <Flex gap="2" mt="3" wrap="wrap">
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("care")}>School and phase</Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("felt")}>How dry is it?</Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("weight")}>Weigh it</Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("ready")}>When it wants water</Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("treated")}>Leaves treated</Button>
      </Flex>
      <Flex gap="2" mt="2" wrap="wrap" align="center">
        <Text fontSize="sm" color="fg.muted">{page.row.place}:</Text>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("place")}>Seasons</Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("climate")}>Warmth</Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("changed")}>What changed</Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("rule")}>Rule of the place</Button>
      </Flex>
      <Box mt="3">
        {open === "care" && <CareForm potId={page.row.id} care={care} onClose={close} />}
        {open === "weight" && <WeightForm potId={page.row.id} today={page.today} onClose={close} />}
        {open === "climate" && <ClimateForm placeId={care.place_id} place={page.row.place} today={page.today} onClose={close} />}
        {open === "ready" && <ReadyForm potId={page.row.id} care={care} onClose={close} />}
        {open === "treated" && <TreatedForm potId={page.row.id} today={page.today} onClose={close} />}
        {open === "felt" && <FeltForm potId={page.row.id} care={care} today={page.today} onClose={close} />}
        {open === "changed" && <ChangeHere placeId={care.place_id} place={page.row.place} today={page.today} onClose={close} />}
        {open === "rule" && <RuleForm scope="place" ruleKey={String(care.place_id)} of={page.row.place} onClose={close} />}
        {open === "place" && <PlaceForm placeId={care.place_id} onClose={close} />}
      </Box>
    </Card>
  )
}
