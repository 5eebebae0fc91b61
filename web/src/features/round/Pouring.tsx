import { Box, Button, Flex, Heading, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useEffect, useState } from "react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { roundQuery } from "../../api/queries"
import { Loaded } from "../../ui/Page"
import { MixStep } from "./MixStep"
import { PourStep } from "./PourStep"
import { stepsOf } from "./steps"

/** Full-screen walk at the bench: one pot fills the screen. */
export function Pouring() {
  const query = useQuery({ ...roundQuery, staleTime: 0 })
  const [page, setPage] = useState<Schemas["RoundPage"] | null>(null)
  if (page === null && query.data && !query.isFetching) setPage(query.data)  // frozen: logging pours must not move the walk
  useEffect(() => {
    document.title = "Pouring · Fenwa"
  }, [])
  return (
    <Box as="main" minH="100dvh" bg="bg.panel">
      <Flex direction="column" minH="100dvh" maxW="560px" mx="auto" p="5">
        {page ? <Walk page={page} /> : <Loaded query={query}>{() => <Text role="status">One moment.</Text>}</Loaded>}
      </Flex>
    </Box>
  )
}

function Walk({ page }: { page: Schemas["RoundPage"] }) {
  const steps = stepsOf(page.plan)
  const [at, setAt] = useState(0)
  const [done, setDone] = useState(0)
  const [batches, setBatches] = useState<Record<string, number>>({})
  const step = steps[at]
  const next = (poured: boolean) => {
    if (poured) setDone((d) => d + 1)
    setAt((i) => i + 1)
  }
  if (!step) return <Finished done={done} of={page.plan.pots_due} />
  return (
    <>
      <Flex justify="space-between" color="fg.muted">
        <Text>{step.kind === "mix" ? `Can ${step.can.letter} · mix it` : `Can ${step.can.letter} · pot ${step.index} of ${step.of}`}</Text>
        <Link to="/" data-back><Text as="span" textDecoration="underline">Leave</Text></Link>
      </Flex>
      <Box role="progressbar" aria-label="Way through the round" aria-valuemin={0} aria-valuemax={steps.length} aria-valuenow={at} h="6px" my="2" bg="bg.subtle" borderRadius="full">
        <Box h="6px" bg="ink.solid" borderRadius="full" style={{ width: `${(at / steps.length) * 100}%` }} />
      </Box>
      {step.kind === "mix" ? (
        <MixStep key={at} can={step.can} productId={page.feed_product_id} product={page.feed_product} today={page.today} onMixed={(id) => { setBatches({ ...batches, [step.can.letter]: id }); next(false) }} />
      ) : (
        <PourStep key={at} can={step.can} pot={step.pot} batchId={batches[step.can.letter]} today={page.today} onNext={next} onBack={at > 0 ? () => setAt(at - 1) : undefined} />
      )}
    </>
  )
}

function Finished({ done, of }: { done: number; of: number }) {
  return (
    <Flex direction="column" gap="4" mt="10">
      <Heading as="h1" size="2xl">{of === 0 ? "Nothing is due today" : "The round is done"}</Heading>
      {of > 0 && <Text fontSize="lg">{done} of {of} pots poured. Empty the saucers that must not stand wet.</Text>}
      <Button asChild minH="64px" fontSize="lg"><Link to="/">Back to the round</Link></Button>
    </Flex>
  )
}
