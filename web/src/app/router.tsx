// Stations of the channel and their routes. A new screen: a folder in features/ and a line here.
import { createBrowserRouter, type RouteObject } from "react-router"
import { mixQuery, roundFirstQuery, waterQuery } from "../api/queries"
import { queryClient } from "./queryClient"
import { Shell } from "./Shell"
import { RouteProblem } from "./RouteProblem"

type Loaded = { Screen: React.ComponentType }
/** `first`: asks for what the screen shows first, while its code is on its way. */
const screen = (load: () => Promise<Loaded>, first?: () => Promise<void>) => async () => {
  void first?.()
  return { Component: (await load()).Screen }
}

const routes: RouteObject[] = [
  {
    index: true,
    lazy: screen(
      () => import("../features/round"),
      () => queryClient.prefetchQuery(roundFirstQuery),
    ),
  },
  {
    path: "water",
    lazy: screen(
      () => import("../features/water"),
      () => queryClient.prefetchQuery(waterQuery),
    ),
  },
  { path: "water/sheet", lazy: screen(() => import("../features/water/sheet")) },
  {
    path: "mix",
    lazy: screen(
      () => import("../features/mix"),
      () => queryClient.prefetchQuery(mixQuery),
    ),
  },
  { path: "pots", lazy: screen(() => import("../features/pots")) },
  { path: "pots/labels", lazy: screen(() => import("../features/pots/labels")) },
  { path: "pots/:id", lazy: screen(() => import("../features/pots/potPage")) },
  { path: "pots/:id/passport", lazy: screen(() => import("../features/answers/passport")) },
  { path: "season-report", lazy: screen(() => import("../features/answers/report")) },
  { path: "plans", lazy: screen(() => import("../features/plans")) },
  { path: "plans/edit", lazy: screen(() => import("../features/plans/editPage")) },
  { path: "kinds", lazy: screen(() => import("../features/kinds")) },
  { path: "kinds/:id", lazy: screen(() => import("../features/kinds/kindPage")) },
  { path: "candidates", lazy: screen(() => import("../features/candidates")) },
  { path: "days", lazy: screen(() => import("../features/days")) },
  { path: "away", lazy: screen(() => import("../features/days/awayPage")) },
  { path: "round/sheet", lazy: screen(() => import("../features/days/roundSheet")) },
  { path: "start", lazy: screen(() => import("../features/start")) },
  { path: "help", lazy: screen(() => import("../features/help")) },
  { path: "help/:station", lazy: screen(() => import("../features/help")) },
  { path: "sums", lazy: screen(() => import("../features/sums")) },
  { path: "house", lazy: screen(() => import("../features/house")) },
  { path: "flush", lazy: screen(() => import("../features/flush")) },
  { path: "flush/waiting/:key", lazy: screen(() => import("../features/flush/waiting")) },
  { path: "flush/:id", lazy: screen(() => import("../features/flush/session")) },
  { path: "leaf", lazy: screen(() => import("../features/leaf")) },
  { path: "look", lazy: screen(() => import("../features/look")) },
  { path: "look/desk", lazy: screen(() => import("../features/look/deskPage")) },
  { path: "look/:id", lazy: screen(() => import("../features/look")) },
  { path: "photos/:id", lazy: screen(() => import("../features/photos/measure")) },
  { path: "rate", lazy: screen(() => import("../features/photos/rate")) },
  { path: "compare/:id", lazy: screen(() => import("../features/photos/compare")) },
  { path: "answer/:id", lazy: screen(() => import("../features/answers/answer")) },
  { path: "changes", lazy: screen(() => import("../features/answers/changes")) },
  { path: "trials", lazy: screen(() => import("../features/answers/trials")) },
  { path: "trials/:id", lazy: screen(() => import("../features/answers/trial")) },
  { path: "seasons/:id", lazy: screen(() => import("../features/answers/seasons")) },
  { path: "wrong/:id", lazy: screen(() => import("../features/wrong")) },
  { path: "shelf", lazy: screen(() => import("../features/shelf")) },
]

export const router = createBrowserRouter([
  {
    path: "/",
    element: <Shell />,
    errorElement: <RouteProblem />,
    children: routes,
    hydrateFallbackElement: <div />,
  },
  {
    path: "/pour",
    lazy: screen(() => import("../features/round/pouring")),
    errorElement: <RouteProblem />,
    hydrateFallbackElement: <div />,
  },
])
