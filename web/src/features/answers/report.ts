export { ReportScreen as Screen } from "./ReportScreen"
