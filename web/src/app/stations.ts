// The way of the salt, in order.
export const STATIONS = [
  { key: "round", label: "Round", to: "/" },
  { key: "water", label: "Water", to: "/water" },
  { key: "mix", label: "Mix", to: "/mix" },
  { key: "pots", label: "Pots", to: "/pots" },
  { key: "flush", label: "Flush", to: "/flush" },
  { key: "leaf", label: "Leaf", to: "/leaf" },
  { key: "shelf", label: "Shelf", to: "/shelf" },
] as const

/** Of no station: sums that need no record. */
export const SUMS = { key: "sums", label: "Quick sums", to: "/sums" } as const

/** What each station answers, and how it is worked. */
export const HELP_PAGE = { key: "help", label: "Help", to: "/help" } as const

export const BOTTOM = ["round", "mix", "pots", "leaf"] as const

export const isHere = (to: string, path: string) =>
  to === "/"
    ? path === "/" || ["/days", "/away", "/round"].some((p) => path.startsWith(p))
    : path.startsWith(to) ||
      (to === "/pots" && path.startsWith("/kinds")) ||
      (to === "/shelf" && path.startsWith("/house"))
