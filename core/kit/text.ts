/** Lower case, accents folded, letters of every script kept, punctuation to single spaces: what search compares. */
export function foldText(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
}

/** The words of a search, folded, at most eight. */
export function searchWords(text: string): string[] {
  return foldText(text).split(' ').filter(Boolean).slice(0, 8)
}

/** "R-24018" from prefix and number; the number is at least five digits. */
export function formatNumber(prefix: string, value: number): string {
  return `${prefix}-${String(value).padStart(5, '0')}`
}

/** "one line", "2 lines": a count with its noun in the right number. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${count} ${count === 1 ? one : many}`
}
