import { amount } from "../../ui/format"
import type { ReactNode } from "react"
import { Button } from "@chakra-ui/react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { PageHead } from "../../ui/Page"

/** What the can is for, and what it may be made into. */
export function MixHead({
  title,
  strict,
  ready,
  onName,
  onBench,
  children,
}: {
  title: string
  strict: Schemas["ForPots"] | undefined
  ready: boolean
  onName: () => void
  onBench: () => void
  children: ReactNode
}) {
  return (
    <PageHead
      title={title}
      line={
        strict && strict.ceiling_uS_cm !== null
          ? `The strictest of them, ${strict.strictest}, takes a feed up to ${amount(strict.ceiling_uS_cm, "µS/cm")}.`
          : "Choose the pots, and their strictest ceiling rules."
      }
    >
      <Button asChild variant="outline" minH="48px">
        <Link to="/sums">Quick sums</Link>
      </Button>
      <Button asChild variant="outline" minH="48px">
        <Link to="/plans">Feeding plans</Link>
      </Button>
      <Button variant="outline" minH="48px" disabled={!ready} onClick={onName}>
        Save as a recipe
      </Button>
      <Button variant="outline" minH="48px" disabled={!ready} onClick={onBench}>
        Bench list
      </Button>
      {children}
    </PageHead>
  )
}
