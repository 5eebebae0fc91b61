import { Box, Button, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import type { Draft, Page } from "../draft"
import { soluble } from "../draft"
import { Choose, EntryRow } from "../../../ui/EntryRow"

type Props = {
  page: Page
  draft: Draft
  onChange: (d: Draft) => void
  problems: Record<string, string>
}

/** Feeds first, pure salts after them. */
export function FeedOptions({ products }: { products: Schemas["ProductOut"][] }) {
  const salts = products.filter((p) => p.label.formula !== "")
  return (
    <>
      <optgroup label="Feeds">
        {products
          .filter((p) => p.label.formula === "")
          .map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
      </optgroup>
      {salts.length > 0 && (
        <optgroup label="Salts by formula">
          {salts.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
        </optgroup>
      )}
    </>
  )
}

/** The leading feed, and what goes in beside it at its own dose. */
export function FeedFields({ page, draft, onChange, problems }: Props) {
  const set = (part: Partial<Draft>) => onChange({ ...draft, recipe: "", ...part })
  const used = new Set([draft.product_id, ...draft.also.map((a) => a.product_id)])
  const left = soluble(page).filter((p) => !used.has(p.id))
  const free = left.find((p) => p.label.formula === "") ?? left[0]
  return (
    <>
      <Choose
        label="Feed"
        value={String(draft.product_id ?? "")}
        onChange={(v) => set({ product_id: v ? Number(v) : null, also: v ? draft.also : [] })}
        problem={problems.product_id}
      >
        <FeedOptions products={soluble(page)} />
        <option value="">nothing, plain water</option>
      </Choose>
      {draft.also.map((a, i) => {
        const update = (part: Partial<typeof a>) =>
          set({ also: draft.also.map((x, j) => (j === i ? { ...x, ...part } : x)) })
        return (
          <Box key={i}>
            <Choose
              label={`And ${i + 1}`}
              value={String(a.product_id)}
              onChange={(v) => update({ product_id: Number(v) })}
              problem={problems[`also.${i}.product_id`]}
            >
              <FeedOptions products={soluble(page)} />
            </Choose>
            <Flex gap="2" align="flex-start" mt="-1.5">
              <Box flex="1" minW="0">
                <EntryRow
                  label="Dose"
                  unit="g/L"
                  value={a.dose}
                  onChange={(dose) => update({ dose })}
                  problem={problems[`also.${i}.dose_g_L`] ?? problems[`also.${i}.dose`]}
                />
              </Box>
              <Button
                variant="outline"
                minH="46px"
                aria-label={`Leave out product ${i + 1}`}
                onClick={() => set({ also: draft.also.filter((_, j) => j !== i) })}
              >
                Leave out
              </Button>
            </Flex>
          </Box>
        )
      })}
      {draft.product_id !== null && free && draft.also.length < 5 && (
        <Button
          size="sm"
          variant="outline"
          minH="40px"
          mb="3"
          onClick={() => set({ also: [...draft.also, { product_id: free.id, dose: "0.1" }] })}
        >
          Add a product
        </Button>
      )}
      {draft.also.length > 0 && (
        <Text fontSize="sm" color="fg.muted" mb="2">
          The strength below counts all of them; the first one gives way.
        </Text>
      )}
    </>
  )
}
