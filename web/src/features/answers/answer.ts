export { AnswerScreen as Screen } from "./AnswerScreen"
