export { Days as Screen } from "./Days"
