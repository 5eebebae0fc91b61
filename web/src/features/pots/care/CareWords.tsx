import { Flex, Text } from "@chakra-ui/react"
import { Link } from "react-router"
import { type Schemas } from "../../../api/client"
import { capital, day } from "../../../ui/format"
import { Quantity } from "../../../ui/Quantity"

const READY = { water: "Wants water now.", wait: "Leave it today.", check: "To be checked." }

/** What rules the pot, each with why. */
export function CareWords({ page, care }: { page: Schemas["PotPage"]; care: Schemas["CarePage"] }) {
  const { interval, next_feed: next, water } = care
  return (
    <Flex direction="column" gap="1.5">
      <Text>
        <Link to={`/kinds/${page.profile_id}`}>
          <Text as="span" textDecoration="underline" textUnderlineOffset="0.2em">
            {page.profile_name}
          </Text>
        </Link>
        {page.own_figures ? ", by your own figures" : ""}
      </Text>
      <Text>
        <b>{capital(care.phase)}</b>, by {care.phase_by}.{" "}
        <Text as="span" color="fg.muted">
          {care.phase_sentence}
        </Text>
      </Text>
      <Text>
        <b>
          Next look: {care.next_on ? day(care.next_on, page.today) : "held"}, {care.next_job}.
        </b>{" "}
        <Text as="span" color="fg.muted">
          {care.feed_held || next.result.sentence}{" "}
          {care.school &&
            `(${care.school}${care.school_by === "no rule" ? "" : `, ${care.school_by}`})`}
        </Text>
      </Text>
      {care.ready_by !== "days" && (
        <Text>
          <b>{READY[care.ready.result.state]}</b>{" "}
          <Text as="span" color="fg.muted">
            {care.ready.result.sentence}
          </Text>
        </Text>
      )}
      <Text>
        {interval.result.learnt_from
          ? `Learnt from ${interval.result.learnt_from} waterings: `
          : "As set: "}
        {interval.result.word === "water" ? "usually after" : "check after"}{" "}
        <Quantity
          label="Days to the next look"
          value={interval.result.days}
          low={interval.result.low_days}
          high={interval.result.high_days}
          unit="days"
          working={{ kind: "here", working: interval.working }}
        />
        {care.interval_by === "set" && interval.result.learnt_from
          ? `; the round keeps your ${page.interval_days} days`
          : ""}
        {interval.result.next_on && interval.result.word === "check"
          ? `, ${day(interval.result.next_on, page.today)}.`
          : "."}{" "}
        {care.ready_by === "days" && (
          <Text as="span" color="fg.muted">
            {interval.result.sentence}
          </Text>
        )}
      </Text>
      {care.handling && (
        <Text>
          <b>{care.handling}</b>
        </Text>
      )}
      {care.ramps.map((r) => (
        <Text key={r.result.sentence}>{r.result.sentence}</Text>
      ))}
      {water && (
        <Text>
          By weight{" "}
          <Quantity
            label="Water left"
            value={water.result.left_mL}
            unit="mL"
            working={{ kind: "here", working: water.working }}
          />{" "}
          left.{" "}
          <Text as="span" color="fg.muted">
            {water.result.sentence}
          </Text>
        </Text>
      )}
    </Flex>
  )
}
