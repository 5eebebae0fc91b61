import { Box, Button, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { mixQuery, settingsQuery } from "../../api/queries"
import { figure } from "../../ui/format"
import { Card, Loaded, PageHead } from "../../ui/Page"
import { AddProduct } from "./AddProduct"
import { SettingsForm } from "./SettingsForm"

/** Feeds by their label, units and tools. */
export function Screen() {
  const [adding, setAdding] = useState(false)
  const settings = useQuery(settingsQuery)
  return (
    <>
      <PageHead title="Shelf" line="Feeds by their label, your scale and syringe, and the units you like.">
        <Button data-new minH="44px" onClick={() => setAdding(true)}>Add a feed by its label</Button>
      </PageHead>
      {adding && <AddProduct onClose={() => setAdding(false)} />}
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1.5fr) minmax(0,1fr)" }} gap="4" alignItems="start">
        <Loaded query={useQuery(mixQuery)}>{(page) => <Feeds products={page.products} />}</Loaded>
        <Box>
          <Loaded query={settings}>{(s) => <SettingsForm settings={s} />}</Loaded>
          <Safety />
        </Box>
      </Grid>
    </>
  )
}

const ELEMENTS: [keyof Schemas["Elements"], string][] = [["N_nitrate_mg_g", "nitrate N"], ["N_ammonium_mg_g", "ammonium N"], ["N_urea_mg_g", "urea N"], ["P_mg_g", "P"], ["K_mg_g", "K"], ["Ca_mg_g", "Ca"], ["Mg_mg_g", "Mg"], ["S_mg_g", "S"]]

function Feeds({ products }: { products: Schemas["ProductOut"][] }) {
  return (
    <Card title="Feeds">
      {products.map((p) => (
        <Box key={p.id} py="2" borderTopWidth="1px">
          <Text fontWeight="semibold">{p.name}</Text>
          <Text fontSize="sm" color="fg.muted">
            {p.label.form}{p.label.form === "liquid" ? `, ${p.label.density_g_mL ?? "density not stated"} g/mL` : ""} · {p.label.label_rate ? `label rate ${p.label.label_rate} ${p.label.label_rate_unit ?? ""}` : "label states no rate"}{p.elements.split_known ? "" : " · forms of nitrogen not stated"}
          </Text>
          <Text fontSize="sm">{ELEMENTS.filter(([key]) => Number(p.elements[key]) > 0).map(([key, name]) => `${name} ${figure(Number(p.elements[key]))}`).join(" · ")} <Text as="span" color="fg.muted">mg in a gram</Text></Text>
        </Box>
      ))}
    </Card>
  )
}

function Safety() {
  return (
    <Card title="Mind" mt="4">
      <Text mb="1.5">The product’s label and local rules come first.</Text>
      <Text mb="1.5">Keep feed and pesticide away from children, pets and food vessels; label every stock bottle with contents, strength and date.</Text>
      <Text mb="1.5">Acids and peroxide: eye and skin protection, acid into water and never the other way.</Text>
      <Text mb="1.5">Pumps and lamps near water: a drip loop and residual-current protection.</Text>
      <Text>Rain and process water is not drinking water. A water company’s report outranks a pen.</Text>
    </Card>
  )
}
