import { Box } from "@chakra-ui/react"
import type { ReactNode } from "react"

/** A table that scrolls inside itself on a narrow screen. */
export function DataTable({
  label,
  head,
  children,
  minW = "520px",
}: {
  label: string
  head: readonly string[]
  children: ReactNode
  minW?: string
}) {
  return (
    <Box overflowX="auto" tabIndex={0} role="region" aria-label={label}>
      <Box
        as="table"
        w="100%"
        fontSize="sm"
        minW={minW}
        css={{
          "& th": { textAlign: "left", fontWeight: 500, color: "fg.muted", py: "1", pr: "3" },
          "& tbody td": { py: "1.5", pr: "3", borderTopWidth: "1px", verticalAlign: "top" },
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
