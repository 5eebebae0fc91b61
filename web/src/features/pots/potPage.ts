export { PotScreen as Screen } from "./PotScreen"
