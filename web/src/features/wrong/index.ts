export { WrongScreen as Screen } from "./WrongScreen"
