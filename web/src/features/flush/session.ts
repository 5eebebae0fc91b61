export { Session as Screen } from "./Session"
