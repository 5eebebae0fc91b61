export { Pouring as Screen } from "./Pouring"
