import { Box } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useEffect } from "react"
import { Outlet, useLocation } from "react-router"
import { optionsQuery, settingsQuery } from "../api/queries"
import { Loaded } from "../ui/Page"
import { SeenLine } from "../ui/SeenLine"
import { useReader } from "../ui/useReader"
import { WaitingLine } from "../ui/WaitingLine"
import { BottomBar } from "./BottomBar"
import { Channel } from "./Channel"
import { applyTheme } from "./colourMode"
import { FoldingLine } from "./FoldingLine"
import { KeyHelp } from "./KeyHelp"
import { LookBanner } from "./LookBanner"
import { NewerLine } from "./NewerLine"
import { useKeys } from "./useKeys"
import { useOutbox } from "./useOutbox"
import { useWide } from "./useWide"

/** Frame of every station: skip link, channel, page, bottom bar. */
export function Shell() {
  const options = useQuery(optionsQuery) // the lists of every form: shown before any form is
  const settings = useQuery(settingsQuery)
  const theme = useReader()?.theme
  const path = useLocation().pathname
  const [helping, setHelping] = useKeys()
  const wide = useWide()
  useOutbox()
  useEffect(() => {
    if (theme) applyTheme(theme)
  }, [theme])
  useEffect(() => {
    window.scrollTo(0, 0)
  }, [path])
  return (
    <>
      <Box
        asChild
        position="absolute"
        left="-9999px"
        _focus={{ left: "4", top: "2", bg: "bg.panel", p: "2", zIndex: 20 }}
      >
        <a href="#main">Skip to the page</a>
      </Box>
      <LookBanner />
      {wide && <Channel />}
      <Box
        as="main"
        id="main"
        tabIndex={-1}
        px={{ base: "4", md: "6" }}
        py="4"
        pb={{ base: "24", md: "8" }}
        maxW="1500px"
        outline="none"
      >
        <NewerLine />
        <FoldingLine />
        <SeenLine />
        <WaitingLine />
        <Loaded query={options}>
          {() => <Loaded query={settings}>{() => <Outlet />}</Loaded>}
        </Loaded>
      </Box>
      {!wide && <BottomBar />}
      <KeyHelp open={helping} onClose={() => setHelping(false)} />
    </>
  )
}
