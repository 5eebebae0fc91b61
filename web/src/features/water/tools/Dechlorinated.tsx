import { Box, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { DataTable } from "../../../ui/DataTable"
import { Facts } from "../../../ui/Facts"
import { Quantity } from "../../../ui/Quantity"

/** How much conditioner, and what else would do. */
export function Dechlorinated({
  r,
  here,
}: {
  r: Schemas["Dechlorination"]
  here: { kind: "here"; working: Schemas["Working"] } | undefined
}) {
  return (
    <>
      <Text fontSize="xl" fontWeight="semibold">
        <Quantity
          label="Sodium thiosulfate"
          value={r.thiosulfate_mg}
          unit="mg thiosulfate crystals"
          working={here}
        />
      </Text>
      <Text>
        or{" "}
        <Quantity
          label="1 % stock"
          value={r.stock_mL}
          unit="mL of a fresh 1 % stock"
          working={here}
        />
        ; wait {r.wait_minutes} minutes.
      </Text>
      <Text mt="2" p="2" bg="bg.inset" borderRadius="md">
        It takes out disinfectant only. No reading falls, and no hardness, alkalinity or sodium.
      </Text>
      <Facts
        rows={[
          [
            "Least that can do",
            <Quantity key="l" label="Least" value={r.least_mg} unit="mg" working={here} />,
          ],
          [
            "As anhydrous salt",
            <Quantity
              key="y"
              label="As anhydrous salt"
              value={r.anhydrous_mg}
              unit="mg"
              working={here}
            />,
          ],
          [
            "It adds to the reading",
            <Quantity key="e" label="EC added" kind="ec" value={r.ec_rise_uS_cm} working={here} />,
          ],
          [
            "Or ascorbic acid instead",
            <Quantity
              key="v"
              label="Ascorbic acid"
              value={r.ascorbic_mg}
              unit="mg"
              working={here}
            />,
          ],
          [
            "Sodium added",
            <Quantity
              key="s"
              label="Sodium added"
              value={r.sodium_rise_mg_L}
              unit="mg/L"
              working={here}
            />,
          ],
          r.ammonium_N_mg_L > 0
            ? [
                "Ammonium left by chloramine",
                <Quantity
                  key="n"
                  label="Ammonium left"
                  value={r.ammonium_N_mg_L}
                  unit="mg/L N"
                  working={here}
                />,
              ]
            : null,
        ]}
      />
      <Box mt="3">
        <DataTable label="Ways to take it out" head={["Way", "Works here", "How"]} minW="400px">
          {r.ways.map((w) => (
            <tr key={w.name}>
              <td>{w.name}</td>
              <td>
                <b>{w.works ? "yes" : "no"}</b>
              </td>
              <td>{w.how}</td>
            </tr>
          ))}
        </DataTable>
      </Box>
    </>
  )
}
