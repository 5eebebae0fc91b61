import { Box } from "@chakra-ui/react"
import type { ReactNode } from "react"

// each row a block of its own, each cell behind the words of its head; a box to tick and a name stand side by side
const STACKED = {
  "@media screen and (max-width: 640px)": {
    "&, & tbody, & tr, & td[data-head]": { display: "block" },
    "& td:not([data-head])": { display: "inline-block" },
    "& thead": {
      position: "absolute",
      width: "1px",
      height: "1px",
      overflow: "hidden",
      clipPath: "inset(50%)",
    },
    "& tbody tr": { borderTopWidth: "1px", paddingBlock: "0.4rem" },
    "& tbody td": { borderTopWidth: 0, paddingBlock: "0.1rem" },
    "& td[data-head]::before": {
      content: 'attr(data-head) ": "',
      color: "var(--chakra-colors-fg-muted)",
    },
  },
}

/** A table that scrolls inside itself on a narrow screen; `stacked`: its rows stand below each other there. */
export function DataTable({
  label,
  head,
  children,
  minW = "520px",
  stacked,
}: {
  label: string
  head: readonly string[]
  children: ReactNode
  minW?: string
  stacked?: boolean
}) {
  return (
    <Box overflowX="auto" tabIndex={0} role="region" aria-label={label}>
      <Box
        as="table"
        w="100%"
        fontSize="sm"
        minW={stacked ? { base: 0, md: minW } : minW}
        css={{
          "& th": { textAlign: "left", fontWeight: 500, color: "fg.muted", py: "1", pr: "3" },
          "& tbody td": { py: "1.5", pr: "3", borderTopWidth: "1px", verticalAlign: "top" },
          ...(stacked ? STACKED : {}),
        }}
      >
        <thead>
          <tr>
            {head.map((h) =>
              h ? (
                <th scope="col" key={h}>
                  {h}
                </th>
              ) : (
                <td key={h} /> // a column of ticks or names heads nothing
              ),
            )}
          </tr>
        </thead>
        <tbody>{children}</tbody>
      </Box>
    </Box>
  )
}
