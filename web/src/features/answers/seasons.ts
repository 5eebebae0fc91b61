export { SeasonsScreen as Screen } from "./SeasonsScreen"
