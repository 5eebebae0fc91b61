// What was answered last is the next default: kept in this browser, apart for the demonstration.
import { looking } from "../api/collection"

const place = (form: string) => `fenwa-last-${form}${looking() ? "-demonstration" : ""}`

/** The last answers of a form; none yet, or a browser that keeps nothing: empty. */
export function lastAnswers(form: string): Record<string, string> {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(place(form)) ?? "{}")
    return typeof kept === "object" && kept !== null ? (kept as Record<string, string>) : {}
  } catch {
    return {}
  }
}

export function keepAnswers(form: string, answers: Record<string, string>) {
  try {
    localStorage.setItem(place(form), JSON.stringify(answers))
  } catch {
    // a browser that keeps nothing asks again
  }
}
