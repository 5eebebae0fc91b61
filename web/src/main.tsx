import "@fontsource-variable/hanken-grotesk/wght.css"
import { ChakraProvider } from "@chakra-ui/react"
import { QueryClient, QueryClientProvider } from "@tanstack/react-query"
import { StrictMode } from "react"
import { createRoot } from "react-dom/client"
import { RouterProvider } from "react-router"
import type { ApiProblem } from "./api/problem"
import { applyTheme, followSystem } from "./app/colourMode"
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

// Fenwa is on this machine or in this house: a browser that believes itself offline still asks it
const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      networkMode: "always",
      retry: false,
      staleTime: 15_000,
      refetchOnWindowFocus: false,
    },
    mutations: { networkMode: "always" },
  },
})

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
