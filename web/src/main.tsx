import "@fontsource-variable/hanken-grotesk/wght.css"
import { ChakraProvider } from "@chakra-ui/react"
import { QueryClientProvider } from "@tanstack/react-query"
import { StrictMode } from "react"
import { createRoot } from "react-dom/client"
import { RouterProvider } from "react-router"
import type { ApiProblem } from "./api/problem"
import { optionsQuery, settingsQuery, stationsQuery } from "./api/queries"
import { applyTheme, followSystem } from "./app/colourMode"
import { queryClient } from "./app/queryClient"
import { router } from "./app/router"
import { keepInterface } from "./app/serviceWorker"
import { system } from "./app/theme"
import { NoticeProvider } from "./ui/Notice"
import { WorkingProvider } from "./ui/WorkingProvider"

declare module "@tanstack/react-query" {
  interface Register {
    defaultError: ApiProblem
  }
}

// what every page stands on is asked for while the page's own code is on its way
void queryClient.prefetchQuery(settingsQuery)
void queryClient.prefetchQuery(optionsQuery)
void queryClient.prefetchQuery(stationsQuery)
applyTheme("system")
followSystem()
keepInterface()
const root = document.getElementById("root")
if (root) {
  createRoot(root).render(
    <StrictMode>
      <ChakraProvider value={system}>
        <QueryClientProvider client={queryClient}>
          <NoticeProvider>
            <WorkingProvider>
              <RouterProvider router={router} />
            </WorkingProvider>
          </NoticeProvider>
        </QueryClientProvider>
      </ChakraProvider>
    </StrictMode>,
  )
}
