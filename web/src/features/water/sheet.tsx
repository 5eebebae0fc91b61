import { Box, Button, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { useSettings, waterQuery } from "../../api/queries"
import { DataTable } from "../../ui/DataTable"
import { day, numberIn, ecScale } from "../../ui/format"
import { Loaded, PageHead } from "../../ui/Page"
import { Tests, Remedies } from "./SheetParts"

/** One page for the wall: my waters, who may drink them, what to do. */
export function Screen() {
  return <Loaded query={useQuery(waterQuery)}>{(page) => <Sheet page={page} />}</Loaded>
}

function Sheet({ page }: { page: Schemas["WaterPage"] }) {
  const name = useSettings()?.collection_name
  return (
    <Box
      css={{
        "@media print": {
          "& *": { fontSize: "8pt !important", lineHeight: "1.22 !important" },
          "& h1": { fontSize: "13pt !important" },
          "& td, & th": { paddingBlock: "1px !important", paddingRight: "6px !important" },
          "& br": { display: "none" },
          "& table": { minWidth: "0 !important" },
          "& h2, & p": { marginTop: "4px !important" },
        },
      }}
    >
      <PageHead
        title="My waters"
        line={[name && `${name},`, `${day(page.today)}.`, `EC in ${ecScale()}.`]
          .filter(Boolean)
          .join(" ")}
      >
        <Button data-screen-only variant="outline" asChild>
          <Link to="/water">Back</Link>
        </Button>
        <Button data-screen-only onClick={() => window.print()}>
          Print
        </Button>
      </PageHead>
      <DataTable
        label="My waters"
        head={["Water", "EC", "Read", "Amount", "Kind", "Watch", "Price"]}
        minW="680px"
      >
        {page.waters.map((w) => (
          <tr key={w.id}>
            <td>
              <b>{w.name}</b>, {w.kind_label}
            </td>
            <td style={{ whiteSpace: "nowrap" }}>
              {w.ec25_uS_cm === null
                ? "not measured"
                : `${numberIn(w.ec25_uS_cm, "µS/cm")} ± ${numberIn(w.half_width_uS_cm ?? 0, "µS/cm")}`}
            </td>
            <td style={{ whiteSpace: "nowrap" }}>
              {w.read_on ? day(w.read_on, page.today) : "never"}
            </td>
            <td>{w.amounts}</td>
            <td>
              {w.kind_line}
              <Tests water={w} />
            </td>
            <td>
              {w.watch.sentences.join(" ") ||
                `Read again ${w.watch.retest_on ? day(w.watch.retest_on, page.today) : ""}.`}
            </td>
            <td>{w.price_per_L === null ? "not known" : w.price_per_L}</td>
          </tr>
        ))}
      </DataTable>
      <Text as="h2" fontWeight="semibold" mt="4" mb="1">
        Who may drink which, as it is
      </Text>
      <DataTable
        label="Who may drink which"
        head={["Plant", "At most", ...page.waters.map((w) => w.name)]}
        minW="680px"
      >
        {page.groups.map((g) => (
          <tr key={g.profile_id}>
            <td>{g.short}</td>
            <td>{g.ec_max_uS_cm}</td>
            {page.waters.map((w) => (
              <td key={w.id}>
                {page.verdicts.find((v) => v.water_id === w.id && v.profile_id === g.profile_id)
                  ?.word ?? "not read"}
              </td>
            ))}
          </tr>
        ))}
      </DataTable>
      <Text fontSize="sm" color="fg.muted">
        * something a pen cannot see is not known. “near”: closer to the limit than the margin.
      </Text>
      <Remedies page={page} />
      <Text mt="3" fontSize="sm" color="fg.muted">
        A pen sees the amount of salt, not its kind. Limits are starting values; a laboratory or
        your supplier’s report comes first. Rain and process water is not drinking water.
      </Text>
    </Box>
  )
}
