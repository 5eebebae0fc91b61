import { Grid } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { lanQuery } from "../../api/queries"
import { Loaded, PageHead } from "../../ui/Page"
import { Climate } from "./Climate"
import { People } from "./People"
import { Phone } from "./Phone"
import { dataQuery } from "./queries"
import { YourData } from "./YourData"

/** What concerns the house: the phone at the bench, who pours, the air of each place, the data. */
export function Screen() {
  return (
    <>
      <PageHead
        title="House"
        line="The phone at the bench, who pours, the air of each place, and your data."
      />
      <Grid
        templateColumns={{ base: "minmax(0,1fr)", lg: "repeat(2, minmax(0,1fr))" }}
        gap="4"
        alignItems="start"
      >
        <Loaded query={useQuery(lanQuery)}>{(lan) => <Phone lan={lan} />}</Loaded>
        <People />
        <Climate />
        <Loaded query={useQuery(dataQuery)}>{(data) => <YourData data={data} />}</Loaded>
      </Grid>
    </>
  )
}
