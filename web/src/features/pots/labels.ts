export { Labels as Screen } from "./collection/Labels"
