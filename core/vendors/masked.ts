/** A mail address as somebody who knows it recognizes it, and nobody else learns it: "o…@ohm.example". */
export function maskedAddress(email: string): string {
  const at = email.lastIndexOf('@')
  return at < 1 ? '…' : `${[...email][0]}…${email.slice(at)}`
}
