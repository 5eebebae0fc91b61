import { Box, Button, Grid, Heading, Text } from "@chakra-ui/react"
import { Fragment, useEffect, useRef } from "react"
import { Link, useLocation } from "react-router"
import { helpFor } from "../features/help/stations"

const KEYS: [string, string][] = [
  ["1 to 7", "open a station"],
  ["n", "log something new here"],
  ["w", "show the working of the focused number"],
  ["/", "find a pot"],
  ["Enter", "accept and go on"],
  ["s, p", "pouring: still heavy, or dry and plain water"],
  ["+, \u2212", "pouring: more or less"],
  ["n, b", "pouring: next, or back one step"],
  ["m, o", "pouring: note and runoff; a row one by one"],
  ["Escape", "cancel"],
  ["?", "help of this station, and this list"],
]

/** All keys of the desk; none is needed. */
export function KeyHelp({ open, onClose }: { open: boolean; onClose: () => void }) {
  const path = useLocation().pathname
  const close = useRef<HTMLButtonElement>(null)
  useEffect(() => {
    if (open) close.current?.focus()
  }, [open])
  if (!open) return null
  return (
    <Box
      role="dialog"
      aria-label="Help and keys"
      position="fixed"
      right="6"
      bottom="6"
      bg="bg.panel"
      borderWidth="1px"
      borderRadius="lg"
      p="5"
      zIndex="20"
      boxShadow="lg"
    >
      <Link to={`/help/${helpFor(path)}`} onClick={onClose} style={{ textDecoration: "underline" }}>
        <Box as="span" display="inline-block" py="2.5">
          How this station works
        </Box>
      </Link>
      <Heading as="h2" size="md" mb="3">
        Keys
      </Heading>
      <Grid templateColumns="auto 1fr" gapX="4" gapY="1" mb="4">
        {KEYS.map(([key, what]) => (
          <Fragment key={key}>
            <Text as="kbd" fontFamily="body" fontWeight="bold">
              {key}
            </Text>
            <Text>{what}</Text>
          </Fragment>
        ))}
      </Grid>
      <Button ref={close} size="sm" variant="outline" onClick={onClose}>
        Close
      </Button>
    </Box>
  )
}
