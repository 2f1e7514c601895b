/**
 * Text for a cell of a table that a spreadsheet will open: what it would take for a formula is
 * preceded by an apostrophe, so that it stays text (OWASP, "CSV Injection": cells that begin with
 * = + - @, a tab or a carriage return; from memory).
 */
export function safeCell(text: string): string {
  return /^[=+\-@\t\r]/.test(text) ? `'${text}` : text
}
