import { Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { DataTable } from "../../ui/DataTable"
import { figure } from "../../ui/format"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { schoolsQuery } from "./queries"

const share = (v: number | null) => (v === null ? "not known" : `${figure(100 * v)} %`)

/** Ways of feeding across the collection: salt, leaves, losses. */
export function SchoolsCard() {
  const page = useQuery(schoolsQuery).data
  if (!page) return null
  return (
    <Card title="Ways of feeding, compared">
      <DataTable
        label="Ways of feeding compared"
        minW="380px"
        head={["Fed by", "Plants", "Salt, of ceiling", "Leaves, of usual", "Lost"]}
      >
        {page.schools.map((s) => (
          <tr key={s.school}>
            <td>{s.school}</td>
            <td>{s.plants}</td>
            <td>
              {share(s.salt_share)}
              {s.over_ceiling > 0 && `, ${s.over_ceiling} over`}
            </td>
            <td>{share(s.leaf_share)}</td>
            <td>{s.leaves_lost}</td>
          </tr>
        ))}
      </DataTable>
      <Text mt="2">
        {page.leaves && (
          <>
            <Quantity
              label={`${page.first} against ${page.second}`}
              value={page.leaves.result.middle_shown}
              unit="%"
              working={{ kind: "here", working: page.leaves.working }}
            />
            .{" "}
          </>
        )}
        {page.sentence}
      </Text>
    </Card>
  )
}
