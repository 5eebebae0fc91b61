export { KindScreen as Screen } from "./KindScreen"
