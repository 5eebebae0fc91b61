import { Box, Flex, Input, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Choice } from "../../ui/Choice"
import { startQuery } from "../../api/queries"
import { type Answers, type Change, unitOf } from "./answers"
import { Pressed, Question } from "./Question"

type Water = Answers["waters"][number]

const UNITS = [
  { value: "µS/cm", label: "µS/cm" },
  { value: "mS/cm", label: "mS/cm" },
  { value: "ppm", label: "ppm, scale not known" },
  { value: "ppm 0.5", label: "ppm × 0.5" },
  { value: "ppm 0.64", label: "ppm × 0.64" },
  { value: "ppm 0.7", label: "ppm × 0.7" },
]

const asUnit = (chosen: string) => {
  const [unit, scale] = chosen.split(" ")
  return { unit, scale: scale ?? null } as Pick<Water, "unit" | "scale">
}

/** Which waters can you get; with a pen or a strip at hand, a field for what it shows. */
export function WatersPart({
  answers,
  change,
  problem,
}: {
  answers: Answers
  change: Change
  problem?: string
}) {
  const offered = useQuery(startQuery).data?.waters ?? []
  const pen = answers.measures.some((m) => m !== "kitchen scale")
  const has = (kind: string) => answers.waters.some((w) => w.kind === kind)
  const toggle = (kind: Water["kind"]) =>
    change({
      waters: has(kind)
        ? answers.waters.filter((w) => w.kind !== kind)
        : [
            ...answers.waters,
            {
              kind,
              value: "",
              unit: null,
              scale: null,
            },
          ],
    })
  const set = (kind: string, part: Partial<Water>) =>
    change({ waters: answers.waters.map((w) => (w.kind === kind ? { ...w, ...part } : w)) })
  return (
    <Question n={2} title="Which waters can you get?">
      <Flex gap="2" wrap="wrap">
        {offered.map(({ kind, name }) => (
          <Pressed key={kind} on={has(kind)} onClick={() => toggle(kind)}>
            {name}
          </Pressed>
        ))}
      </Flex>
      {(pen || answers.strip) &&
        answers.waters.map((w) => {
          const name = offered.find((o) => o.kind === w.kind)?.name ?? w.kind
          return (
            <Flex key={w.kind} gap="2" align="center" mt="2" wrap="wrap">
              <Text minW="84px">{name}</Text>
              {pen && (
                <>
                  <Input
                    aria-label={`${name}: the pen shows`}
                    placeholder="not read"
                    inputMode="decimal"
                    autoComplete="off"
                    minH="44px"
                    w="104px"
                    value={w.value ?? ""}
                    onChange={(e) => set(w.kind, { value: e.target.value })}
                  />
                  <Choice
                    label={`${name}: unit`}
                    value={[unitOf(w, answers.measures), w.scale].filter(Boolean).join(" ")}
                    choices={UNITS}
                    onValue={(v) => set(w.kind, asUnit(v))}
                  />
                </>
              )}
              {answers.strip && (
                <Input
                  aria-label={`${name}: hardness, mg/L CaCO3`}
                  placeholder="hardness, mg/L"
                  inputMode="decimal"
                  autoComplete="off"
                  minH="44px"
                  w="140px"
                  value={w.hardness_mg_L_CaCO3 ?? ""}
                  onChange={(e) => set(w.kind, { hardness_mg_L_CaCO3: e.target.value || null })}
                />
              )}
            </Flex>
          )
        })}
      <Box aria-live="polite">
        {problem && (
          <Text role="alert" color="state.stop" mt="2">
            {problem}
          </Text>
        )}
      </Box>
    </Question>
  )
}
