/** A key for a write. Not randomUUID: a phone on the home network without a certificate has none. */
export function newKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (b) =>
    b.toString(16).padStart(2, "0"),
  ).join("")
}
