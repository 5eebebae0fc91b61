export { PassportScreen as Screen } from "./PassportScreen"
