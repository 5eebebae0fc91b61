export { Jobs } from "./Jobs"
export { Screen } from "./Screen"
