import { Box, Button, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { metersQuery } from "../../../api/waterQueries"
import { Loaded } from "../../../ui/Page"
import { CheckForm } from "./CheckForm"
import { MeterForm } from "./MeterForm"
import { ScaleGuess } from "./ScaleGuess"
import { type Open, Meter } from "./Meter"

/** Is the meter true? Each with its checks, and what every reading from it carries. */
export function Meters() {
  const [open, setOpen] = useState<Open>(null)
  const close = () => setOpen(null)
  return (
    <Loaded query={useQuery(metersQuery)}>
      {(page) => (
        <>
          {page.meters.length === 0 && (
            <Text mb="2">
              A pen that reads five percent low moves every verdict. Add yours, dip it into a
              standard now and then, and Fenwa corrects what it reads.
            </Text>
          )}
          <Grid templateColumns="repeat(auto-fit, minmax(min(300px, 100%), 1fr))" gap="4">
            {page.meters.map((m) => (
              <Meter
                key={m.id}
                meter={m}
                today={page.today}
                onOpen={(what) => setOpen({ what, id: m.id })}
              />
            ))}
          </Grid>
          <Button mt="3" variant="outline" onClick={() => setOpen({ what: "new" })}>
            Add a meter
          </Button>
          <Box mt="3">
            {open?.what === "new" && <MeterForm onClose={close} />}
            {page.meters.map(
              (m) =>
                open &&
                "id" in open &&
                open.id === m.id && (
                  <Box key={m.id}>
                    {open.what === "check" && (
                      <CheckForm
                        meter={m}
                        standards={page.standards}
                        today={page.today}
                        onClose={close}
                      />
                    )}
                    {open.what === "edit" && <MeterForm meter={m} onClose={close} />}
                    {open.what === "scale" && (
                      <ScaleGuess
                        meter={m}
                        others={page.meters}
                        standards={page.standards}
                        onClose={close}
                      />
                    )}
                  </Box>
                ),
            )}
          </Box>
        </>
      )}
    </Loaded>
  )
}
