export { RateScreen as Screen } from "./RateScreen"
