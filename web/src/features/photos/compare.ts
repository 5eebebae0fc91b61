export { CompareScreen as Screen } from "./CompareScreen"
