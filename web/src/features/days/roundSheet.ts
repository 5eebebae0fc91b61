export { RoundSheet as Screen } from "./RoundSheet"
