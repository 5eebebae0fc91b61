export { ChangesScreen as Screen } from "./ChangesScreen"
