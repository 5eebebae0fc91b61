export { EditPlan as Screen } from "./EditPlan"
