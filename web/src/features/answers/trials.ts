export { TrialsScreen as Screen } from "./TrialsScreen"
