import { Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { answer, client } from "../../api/client"
import { Card } from "../../ui/Page"

const suppliersQuery = queryOptions({
  queryKey: ["suppliers"],
  queryFn: () => answer(client.GET("/api/suppliers")),
})

/** Where plants came from and what became of them. */
export function SuppliersCard() {
  const found = useQuery(suppliersQuery).data ?? []
  if (found.length === 0) return null
  return (
    <Card title="Where plants came from" mt="4">
      {found.map((s) => (
        <Text key={s.name}>
          {s.name}: {s.sentence}
          {s.causes.length > 0 && ` Lost to: ${s.causes.join(", ")}.`}
        </Text>
      ))}
    </Card>
  )
}
