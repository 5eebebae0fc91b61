export { Plans as Screen } from "./Plans"
