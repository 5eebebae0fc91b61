export { Away as Screen } from "./Away"
