import { useQuery } from "@tanstack/react-query"
import type { Schemas } from "../../api/client"
import { answer, client } from "../../api/client"
import { remediesQuery } from "../../api/waterQueries"
import { DataTable } from "../../ui/DataTable"
import { Quantity } from "../../ui/Quantity"

export function Plants({
  page,
  water,
  verdicts,
}: {
  page: Schemas["WaterPage"]
  water: Schemas["WaterOut"]
  verdicts: Schemas["VerdictOut"][]
}) {
  const remedies = useQuery(remediesQuery(water.id)).data
  return (
    <DataTable
      label={`Verdicts on ${water.name}`}
      head={["Plant", "Amount", "Kind", "Cheapest remedy"]}
      minW="640px"
    >
      {verdicts.map((v) => {
        const group = page.groups.find((g) => g.profile_id === v.profile_id)
        const remedy = remedies?.find((r) => r.profile_id === v.profile_id)?.remedy
        return (
          <tr key={v.profile_id}>
            <td>{group?.short}</td>
            <td>
              <b>{v.amount}</b> · <Verdict v={v} limit={group?.ec_max_uS_cm} />
            </td>
            <td>
              <b>{v.kind}</b> · {v.kind_line}
            </td>
            <td>
              {remedy && (
                <>
                  {remedy.sentence}
                  {remedy.alternative && ` Or: ${remedy.alternative}`}
                  {remedy.action !== "as it is" &&
                    remedy.price_per_L !== null &&
                    remedy.price_per_L > 0 && (
                      <>
                        {" "}
                        <Quantity
                          label={`Price for ${group?.short}`}
                          value={remedy.price_per_L}
                          unit="per litre"
                          working={{
                            kind: "fetch",
                            key: `remedy-${v.water_id}-${v.profile_id}`,
                            load: async () =>
                              (
                                await answer(
                                  client.GET("/api/waters/{water_id}/remedies/{profile_id}", {
                                    params: {
                                      path: { water_id: v.water_id, profile_id: v.profile_id },
                                    },
                                  }),
                                )
                              ).working,
                          }}
                        />
                      </>
                    )}
                </>
              )}
            </td>
          </tr>
        )
      })}
    </DataTable>
  )
}

function Verdict({ v, limit }: { v: Schemas["VerdictOut"]; limit?: number }) {
  return (
    <>
      at most{" "}
      <Quantity
        label="Limit"
        kind="ec"
        value={limit}
        working={{
          kind: "fetch",
          key: `verdict-${v.water_id}-${v.profile_id}`,
          load: async () =>
            (
              await answer(
                client.GET("/api/waters/{water_id}/verdict/{profile_id}", {
                  params: { path: { water_id: v.water_id, profile_id: v.profile_id } },
                }),
              )
            ).working,
        }}
      />
      , {v.margin_line}
    </>
  )
}
