// Which interface the server ships, as each answer says it: another one than at first means this page is older.
let first: string | null = null
let told = false
const listeners = new Set<() => void>()

/** What an answer said; once the server ships another interface, whoever listens is told, once. */
export function servedInterface(said: string | null) {
  if (!said) return
  first ??= said
  if (said === first || told) return
  told = true
  listeners.forEach((l) => l())
}

/** Called when this page has become older than its server. */
export function onOtherInterface(listener: () => void) {
  listeners.add(listener)
  return () => void listeners.delete(listener)
}

/** As if the page had just been opened. */
export function forgetInterface() {
  first = null
  told = false
}
