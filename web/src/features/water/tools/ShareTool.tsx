import { Box, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../../api/client"
import { shareQuery } from "../../../api/waterQueries"
import { DataTable } from "../../../ui/DataTable"
import { amount } from "../../../ui/format"
import { Loaded } from "../../../ui/Page"
import { Quantity } from "../../../ui/Quantity"

/** This week's litres: the strictest plants first. */
export function ShareTool() {
  const [blend, setBlend] = useState(true)
  const query = useQuery(shareQuery(blend))
  return (
    <>
      <Box
        asChild
        display="flex"
        alignItems="center"
        gap="2"
        minH="44px"
        cursor="pointer"
        w="fit-content"
      >
        <label>
          <input
            type="checkbox"
            checked={blend}
            onChange={(e) => setBlend(e.target.checked)}
            style={{ width: 20, height: 20 }}
          />{" "}
          Waters may be mixed for a group
        </label>
      </Box>
      <Loaded query={query}>{(page) => <Shares page={page} />}</Loaded>
    </>
  )
}

function Shares({ page }: { page: Schemas["SharePage"] }) {
  const { result, working } = page.answer
  const here = { kind: "here" as const, working }
  return (
    <>
      <Text fontSize="lg" fontWeight="semibold" mb="1">
        {result.short_L > 0 ? (
          <>
            Short by{" "}
            <Quantity label="Short in all" kind="volume" value={result.short_L} working={here} />{" "}
            this week.
          </>
        ) : (
          "Enough for everyone this week."
        )}
      </Text>
      <Text mb="2">
        {result.purchases.map((p) => `Get ${amount(p.litres, "L")} of ${p.water}. `)}A week costs{" "}
        <Quantity label="Cost of a week" value={result.cost_per_week} unit="" working={here} />, a
        month{" "}
        <Quantity label="Cost of a month" value={result.cost_per_month} unit="" working={here} />.
      </Text>
      {page.not_entered.length > 0 && (
        <Text color="state.warn" mb="2">
          Litres not entered, counted as none: {page.not_entered.join(", ")}.
        </Text>
      )}
      {page.unread.length > 0 && (
        <Text color="fg.muted" mb="2">
          Left out, never read: {page.unread.join(", ")}.
        </Text>
      )}
      <DataTable
        label="Who gets which water"
        head={["Plants, strictest first", "Wanted", "Gets", "EC", "Short"]}
      >
        {result.groups.map((g) => (
          <tr key={g.name}>
            <td>{g.name}</td>
            <td>
              <Quantity
                label={`Wanted by ${g.name}`}
                kind="volume"
                value={g.wanted_L}
                working={here}
              />
            </td>
            <td>
              {g.portions.map((p) => `${amount(p.litres, "L")} ${p.water}`).join(" + ") ||
                "nothing"}
            </td>
            <td>
              <Quantity
                label={`EC for ${g.name}`}
                kind="ec"
                value={g.ec25_uS_cm}
                working={here}
                none="none"
              />
            </td>
            <td>
              {g.short_L > 0 ? (
                <b>
                  {amount(g.short_L, "L")}
                  {g.buy ? `: get ${g.buy}` : ": nothing on sale suits it"}
                </b>
              ) : (
                "no"
              )}
            </td>
          </tr>
        ))}
      </DataTable>
      <Text mt="2" fontSize="sm" color="fg.muted">
        Left over:{" "}
        {Object.entries(result.left_L)
          .map(([name, left]) => `${amount(left, "L")} ${name}`)
          .join(", ") || "nothing counted"}
        . Wanted is every pot’s usual pour over its usual interval.
      </Text>
    </>
  )
}
