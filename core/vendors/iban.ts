/**
 * An account number as it is kept, without blanks and in capitals, or null when its check digits do not fit: moved to
 * the end, letters as 10 to 35, the number leaves 1 when divided by 97 (ISO 13616, ISO 7064 MOD 97-10).
 */
export function readIban(text: string): string | null {
  const plain = text.replace(/\s/g, '').toUpperCase()
  if (!/^[A-Z]{2}\d{2}[A-Z0-9]{11,30}$/.test(plain)) return null
  const digits = (plain.slice(4) + plain.slice(0, 4)).replace(/[A-Z]/g, (letter) => String(letter.charCodeAt(0) - 55))
  let rest = 0
  for (const digit of digits) rest = (rest * 10 + Number(digit)) % 97
  return rest === 1 ? plain : null
}
