import { Mind } from "../../../ui/Mind"
import { Box, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { DataTable } from "../../../ui/DataTable"
import { amount, day, figure } from "../../../ui/format"
import { Quantity } from "../../../ui/Quantity"

/** Whether it stays clear: the sentence first, each mineral behind it, and the order to mix in. */
export function Clear({ clear, names }: { clear: Schemas["Computed_Clarity_"]; names: string[] }) {
  const r = clear.result
  const known = r.minerals.filter((m) => m.index !== null)
  return (
    <Box mb="3">
      <Text
        role="status"
        fontWeight="semibold"
        color={
          r.verdict === "clear"
            ? "state.good"
            : r.verdict === "borderline"
              ? "state.caution"
              : "state.stop"
        }
      >
        {r.sentence}
      </Text>
      <details>
        <summary style={{ cursor: "pointer", padding: "8px 0" }}>
          Saturation, solubility and mixing order
        </summary>
        <DataTable
          label="Saturation"
          head={["Where", "Mineral", "Index, 0 is full", "Verdict"]}
          minW="360px"
        >
          {known.map((m) => (
            <tr key={m.where + m.mineral}>
              <td>{m.where}</td>
              <td>{m.mineral}</td>
              <td>
                <Quantity
                  label={`Saturation of ${m.mineral}`}
                  value={m.index}
                  unit=""
                  working={{ kind: "here", working: clear.working }}
                />
              </td>
              <td>{m.verdict}</td>
            </tr>
          ))}
        </DataTable>
        {r.solubility.map((s) => (
          <Text key={s.name} fontSize="sm">
            {s.name}: {figure(s.strength_g_L, 3)} of at most {figure(s.limit_g_L, 3)} g/L in the
            cold{s.fits ? "" : ", too much"}.
          </Text>
        ))}
        <Box as="ol" pl="5" listStyleType="decimal" mt="2">
          <li>Water first.</li>
          {r.order.map((i) => (
            <li key={i}>{names[i]}</li>
          ))}
          <li>Fill up, stir, read.</li>
        </Box>
      </details>
    </Box>
  )
}

function Bottle({
  bottle,
  working,
}: {
  bottle: Schemas["StockBottle"]
  working: Schemas["Working"]
}) {
  return (
    <Box borderWidth="1px" borderRadius="md" p="3" mb="2">
      <Text fontWeight="semibold">
        {bottle.letter ? `Bottle ${bottle.letter}` : "One bottle"}, {figure(bottle.volume_mL, 5)} mL
      </Text>
      {bottle.contents.map((c) => (
        <Flex key={c.name} justify="space-between" gap="3" py="0.5">
          <Text>{c.name}</Text>
          <Text whiteSpace="nowrap">
            <b>
              <Quantity
                label={`Weigh ${c.name}`}
                kind="mass"
                value={c.weigh_g ?? c.mass_g}
                working={{ kind: "here", working }}
              />
            </b>{" "}
            <Text as="span" color="fg.muted" fontSize="sm">
              {figure(c.concentration_g_L, 3)} g/L
            </Text>
          </Text>
        </Flex>
      ))}
      <Text fontSize="sm" color="state.caution">
        {bottle.hazard}
      </Text>
    </Box>
  )
}

/** What to weigh into which bottle, and what to draw. */
export function Bottles({ stock }: { stock: Schemas["Computed_StockSolution_"] }) {
  const r = stock.result
  const here = { kind: "here" as const, working: stock.working }
  return (
    <>
      {r.bottles.map((b) => (
        <Bottle key={b.letter} bottle={b} working={stock.working} />
      ))}
      <Text>
        {r.dilution}. Draw{" "}
        <b>
          <Quantity label="Draw for this can" value={r.draw_mL} unit="mL" working={here} />
        </b>
        {r.bottles.length > 1 ? " of each, A first, stir, then B" : ""};{" "}
        <Quantity label="Error of the dose" value={r.error_pct} unit="% off (SD)" working={here} />.
        One bottle makes {amount(r.lasts_L, "L")} and keeps {r.keeps_weeks} weeks
        {r.use_by ? `, until ${day(r.use_by)}` : ""}, dark and cool.
      </Text>
    </>
  )
}

/** The tank of an injector, with its ratio said both ways. */
export function Ratio({ injector }: { injector: Schemas["Computed_Injector_"] }) {
  const r = injector.result
  return (
    <>
      {r.bottles.map((b) => (
        <Bottle key={b.letter} bottle={b} working={injector.working} />
      ))}
      <Text>
        {r.sentence} One tank makes{" "}
        <Quantity
          label="Feed from one tank"
          kind="volume"
          value={r.feed_L}
          working={{ kind: "here", working: injector.working }}
        />{" "}
        of feed; strongest that dissolves: 1 in {r.largest_ratio}. Use it within {r.keeps_weeks}{" "}
        weeks.
      </Text>
      <Mind of="pump" />
    </>
  )
}
