import { cleanText } from '#core/kit'

/**
 * Text for a cell of a table that a spreadsheet will open: what it would take for a formula is
 * preceded by an apostrophe, so that it stays text (OWASP, "CSV Injection": cells that begin with
 * = + - @, a tab or a carriage return; from memory).
 */
export function safeCell(text: string): string {
  // Also of rows from before texts were cleaned at the door: no workbook holds such signs.
  const clean = cleanText(text)
  return /^[=+\-@\t\r\n]/.test(clean) ? `'${clean}` : clean
}
