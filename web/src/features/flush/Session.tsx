import { Mind } from "../../ui/Mind"
import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState, useSyncExternalStore } from "react"
import { Link, useParams } from "react-router"
import type { Schemas } from "../../api/client"
import { subscribe, waiting } from "../../api/outbox"
import { amount, figure, numberIn, day } from "../../ui/format"
import { Loaded } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { FinishForm } from "./FinishForm"
import { LiveChart } from "./LiveChart"
import { PassForm } from "./PassForm"
import { flushQuery, passesPath } from "./queries"
import { Slugs } from "./Slugs"
import { SoakTimer } from "./SoakTimer"

/** A flush as it runs: pour, soak, read, until it may stop. */
export function Session() {
  const id = Number(useParams().id)
  return <Loaded query={useQuery(flushQuery(id))}>{(f) => <Running key={id} f={f} />}</Loaded>
}

function Running({ f }: { f: Schemas["FlushOut"] }) {
  const [finishing, setFinishing] = useState(false)
  const path = passesPath(f.id)
  const unsent = useSyncExternalStore(subscribe, waiting).filter((e) => e.path === path)
  const live = f.live.result
  const working = { kind: "here", working: f.live.working } as const
  const last = unsent.at(-1)?.body["at"] as string | undefined
  const poured = last ?? (f.last_poured_at ? `${f.last_poured_at}Z` : null)
  return (
    <Box maxW="520px" mx="auto">
      <Flex justify="space-between" gap="3">
        <Text color="fg.muted">
          {f.ended_as ? "Flush ended" : `Flush, pass ${f.passes.length + unsent.length + 1}`}
        </Text>
        <Link to="/flush">{f.ended_as ? "To the Flush station" : "Leave; it goes on"}</Link>
      </Flex>
      <Text as="h1" fontSize="1.6rem" fontWeight="semibold">
        {f.code} {f.name}
      </Text>
      <Text color="fg.muted">
        {f.water} {amount(f.water_uS_cm, "µS/cm")}, down to a reading of{" "}
        {numberIn(f.target_uS_cm, "µS/cm")}
      </Text>
      <LiveChart f={f} />
      <Slugs f={f} unsent={unsent.length} />
      <Flex gap="6" mt="3">
        <Figure words="poured so far">
          <Quantity label="Poured" kind="volume" value={live.poured_L} working={working} />
        </Figure>
        {!f.ended_as && !live.stop && (
          <Figure
            words={
              live.left_low_L !== null && live.left_high_L !== null
                ? `to go, ${figure(live.left_low_L, 2)} to ${figure(live.left_high_L, 2)}`
                : "to go"
            }
          >
            <Quantity
              label="Left to pour"
              kind="volume"
              value={live.left_L}
              none="not told"
              working={working}
            />
          </Figure>
        )}
      </Flex>
      {f.ended_as ? (
        <Ended f={f} />
      ) : (
        <>
          {poured && !live.stop && <SoakTimer since={poured} minutes={f.pause_min} />}
          {!live.stop && (
            <Text mt="3" fontWeight="semibold" aria-live="polite">
              {unsent.length > 0
                ? `${unsent.length} ${unsent.length === 1 ? "pass waits" : "passes wait"} in this phone until Fenwa answers. The plan stands.`
                : live.sentence}
            </Text>
          )}
          {!live.stop && !finishing && (
            <Text fontSize="sm" color="fg.muted">
              Stop after two readings at or under {numberIn(f.stop_runoff_uS_cm, "µS/cm")}, a soak
              apart, alike within 5 %. {under(live.under)}
            </Text>
          )}
          {!live.stop && !finishing && <PassForm key={f.passes.length} f={f} />}
          <Mind of="disposal" />
          {finishing || live.stop ? (
            <FinishForm f={f} onCancel={live.stop ? undefined : () => setFinishing(false)} />
          ) : (
            <Button
              mt="3"
              minH="48px"
              w="100%"
              variant="outline"
              onClick={() => setFinishing(true)}
            >
              Finish here
            </Button>
          )}
        </>
      )}
    </Box>
  )
}

const under = (n: number) =>
  n === 0 ? "None yet." : n === 1 ? "One so far." : "Two, not alike yet."

function Figure({ words, children }: { words: string; children: React.ReactNode }) {
  return (
    <Box>
      <Text fontSize="2rem" fontWeight="bold" lineHeight="1.1">
        {children}
      </Text>
      <Text color="fg.muted">{words}</Text>
    </Box>
  )
}

function Ended({ f }: { f: Schemas["FlushOut"] }) {
  return (
    <Box borderWidth="1px" borderRadius="lg" p="3" mt="3" bg="bg.panel">
      <Text fontWeight="semibold">{f.feed_sentence}</Text>
      {f.before_uS_cm !== null && f.after_uS_cm !== null && (
        <Text>
          Reading {numberIn(f.before_uS_cm, "µS/cm")} before, about{" "}
          {numberIn(f.after_uS_cm, "µS/cm")} now.
        </Text>
      )}
      {f.look_on && <Text>Look again by {day(f.look_on)}: by then its leaves have answered.</Text>}
      {f.tray_emptied === false && (
        <Text color="state.caution">The tray is still full: tip it out.</Text>
      )}
      <Button asChild mt="3" minH="48px">
        <Link to={`/pots/${f.pot_id}`}>Open {f.code}</Link>
      </Button>
    </Box>
  )
}
