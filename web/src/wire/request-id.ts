/** A fresh id for what is intended once. Browsers make UUIDs only for pages of https or this very machine; on the shop's network there is neither. */
export function newRequestId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  return [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('')
}
