import { QueryClient } from "@tanstack/react-query"

// Fenwa is on this machine or in this house: a browser that believes itself offline still asks it
export const queryClient = new QueryClient({
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
