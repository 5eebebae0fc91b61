export { WaitingSession as Screen } from "./WaitingSession"
