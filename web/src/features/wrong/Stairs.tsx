import { Box, Text } from "@chakra-ui/react"
import { day } from "../../ui/format"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import type { CheckStep, Wrong } from "./queries"

const DROP = 18 // px a step of harm goes down into the pot

/** Checks as stairs going down: each step costs the plant more than the one above. */
export function Stairs({
  stairs,
  onCheck,
}: {
  stairs: Wrong["stairs"]
  onCheck: (id: string) => void
}) {
  const { steps, sentence } = stairs.result
  const harms = [...new Set(steps.map((s) => s.harm))]
  return (
    <Card title="Next checks, gentlest first">
      <Text>
        {sentence}{" "}
        <Box as="span" color="fg.muted" fontSize="sm">
          Down the stairs only as far as needed.{" "}
          <Quantity
            label="Steps"
            value={steps.filter((s) => s.state === "done").length}
            unit="done"
            working={{ kind: "here", working: stairs.working }}
          />
        </Box>
      </Text>
      <Box
        display="flex"
        flexDirection={{ base: "column", lg: "row" }}
        alignItems={{ lg: "flex-start" }}
        mt="2"
        role="list"
        aria-label="Checks"
      >
        {harms.map((harm, i) => (
          <Box
            key={harm}
            role="listitem"
            flex={{ lg: `${steps.filter((s) => s.harm === harm).length} 1 0` }}
            mt={{ lg: `${i * DROP}px` }}
            minW="0"
          >
            <Box display="grid" gridTemplateColumns="repeat(auto-fit, minmax(118px, 1fr))" gap="1">
              {steps
                .filter((s) => s.harm === harm)
                .map((s) => (
                  <StepBox key={s.id} step={s} onCheck={onCheck} />
                ))}
            </Box>
            <Box
              bg="phase.other"
              borderTopWidth="2px"
              borderColor="fg"
              px="2"
              py="1"
              fontSize="sm"
              fontWeight="semibold"
            >
              {steps.find((s) => s.harm === harm)?.costs_plant}
            </Box>
          </Box>
        ))}
      </Box>
    </Card>
  )
}

function StepBox({ step, onCheck }: { step: CheckStep; onCheck: (id: string) => void }) {
  const next = step.state === "next"
  const done = step.state === "done"
  const said = done
    ? `done: ${step.found || "read"}${step.found_on ? `, ${day(step.found_on)}` : ""}`
    : step.state === "not now"
      ? step.why_not
      : step.state === "no reason"
        ? "no reason now"
        : step.decides
  const idle = step.state === "not now"
  return (
    <Box
      asChild
      textAlign="left"
      p="2"
      minH="84px"
      borderRadius="sm"
      bg={next ? "ink.solid" : "transparent"}
      color={next ? "ink.contrast" : idle ? "state.stop" : "fg"}
      fontSize="sm"
      opacity={step.state === "no reason" ? 0.8 : 1}
    >
      <button type="button" disabled={step.id === "read_log"} onClick={() => onCheck(step.id)}>
        <Box as="span" display="block" fontWeight="semibold">
          {step.name}
        </Box>
        <Box as="span" display="block">
          {step.minutes < 600 ? `${step.minutes} min` : "a week"}
        </Box>
        <Box as="span" display="block" color={done && !next ? "state.good" : undefined}>
          {said}
        </Box>
      </button>
    </Box>
  )
}
