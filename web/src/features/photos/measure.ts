export { MeasureScreen as Screen } from "./MeasureScreen"
