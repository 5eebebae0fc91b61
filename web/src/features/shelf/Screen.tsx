import { Box, Button, Grid } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { settingsQuery, shelfQuery } from "../../api/queries"
import { Loaded, PageHead } from "../../ui/Page"
import { Feeds } from "./Feeds"
import { GiveForm } from "./GiveForm"
import { ProductForm } from "./ProductForm"
import { SettingsForm } from "./SettingsForm"
import { Vessels } from "./Vessels"

type Open =
  | { kind: "new" }
  | { kind: "edit"; product: Schemas["ProductOut"] }
  | { kind: "give"; product: Schemas["ProductOut"] }
  | null

/** Feeds by their label, cans and spoons, units and tools. */
export function Screen() {
  const settings = useQuery(settingsQuery)
  return (
    <Loaded query={useQuery(shelfQuery)}>
      {(page) => (
        <Shelf page={page}>
          {<Loaded query={settings}>{(s) => <SettingsForm settings={s} />}</Loaded>}
        </Shelf>
      )}
    </Loaded>
  )
}

function Shelf({ page, children }: { page: Schemas["ShelfPage"]; children: React.ReactNode }) {
  const [open, setOpen] = useState<Open>(null)
  const close = () => setOpen(null)
  const show = (next: Open) => {
    setOpen(next)
    window.scrollTo({ top: 0 })
  }
  return (
    <>
      <PageHead
        title="Shelf"
        line="Feeds by their label, your cans and spoons, scale and syringe, and the units you like."
      >
        <Button asChild variant="outline" minH="44px">
          <Link to="/house">House, phone, people</Link>
        </Button>
        <Button data-new minH="44px" onClick={() => show({ kind: "new" })}>
          Add a feed by its label
        </Button>
      </PageHead>
      {open?.kind === "new" && <ProductForm onClose={close} />}
      {open?.kind === "edit" && (
        <ProductForm
          key={open.product.id}
          product={open.product}
          pack={page.packs.find((p) => p.product_id === open.product.id)}
          onClose={close}
        />
      )}
      {open?.kind === "give" && (
        <GiveForm key={open.product.id} product={open.product} today={page.today} onClose={close} />
      )}
      <Grid
        templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1.5fr) minmax(0,1fr)" }}
        gap="4"
        alignItems="start"
      >
        <Feeds
          page={page}
          onEdit={(product) => show({ kind: "edit", product })}
          onGive={(product) => show({ kind: "give", product })}
        />
        <Box>
          <Vessels page={page} />
          {children}
        </Box>
      </Grid>
    </>
  )
}
