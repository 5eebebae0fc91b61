export { Screen } from "./Screen"
