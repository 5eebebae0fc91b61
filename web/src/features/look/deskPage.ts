export { DeskScreen as Screen } from "./DeskScreen"
