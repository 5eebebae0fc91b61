import { Flex } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import type { Schemas } from "../../api/client"
import { waterQuery } from "../../api/queries"
import { Choice } from "../../ui/Choice"
import { Entry } from "../../ui/Entry"

type Body = Schemas["TrialIn"]

/** What the changed plants get: another water, another feed, and the coin that draws which they are. */
export function TrialArms({ body, onSet }: { body: Body; onSet: (more: Partial<Body>) => void }) {
  const waters = useQuery(waterQuery).data?.waters ?? []
  return (
    <Flex gap="3" wrap="wrap" align="flex-end" mt="3">
      <Choice
        label="Water of the changed ones"
        value={String(body.water_id ?? "")}
        onValue={(v) => onSet({ water_id: v ? Number(v) : null })}
        choices={[
          { value: "", label: "water as before" },
          ...waters.map((w) => ({ value: String(w.id), label: w.name })),
        ]}
      />
      <Choice
        label="Feed of the changed ones"
        value={body.feed ?? "as planned"}
        onValue={(v) => onSet({ feed: v as Body["feed"], share: v === "share" ? "0.5" : null })}
        choices={[
          { value: "as planned", label: "feed as planned" },
          { value: "none", label: "no feed" },
          { value: "share", label: "a share of the label" },
        ]}
      />
      {body.feed === "share" && (
        <Entry
          label="Share of the label"
          w="130px"
          numeric
          value={String(body.share ?? "")}
          onValue={(share) => onSet({ share })}
        />
      )}
      <Entry
        label="Coin, a number"
        w="110px"
        numeric
        value={String(body.seed ?? "")}
        onValue={(seed) => onSet({ seed })}
      />
    </Flex>
  )
}
