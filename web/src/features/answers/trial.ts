export { TrialScreen as Screen } from "./TrialScreen"
