/** How long the one line of a request may be. */
const MOST_SUMMARY = 120

/**
 * What was said in a corridor as a request holds it: its first sentence is the line that stands everywhere, all of it the
 * description; a code nobody knows is kept in words.
 */
export function asRequest(said: string, unknownCode: string | null): { summary: string; description: string } {
  const text = said.trim()
  const first = /^[^\n]*?[.!?](?=\s|$)|^[^\n]+/.exec(text)?.[0] ?? text
  const line = first.replace(/[.]$/, '').trim()
  return {
    summary: line.length > MOST_SUMMARY ? `${line.slice(0, MOST_SUMMARY - 1).trimEnd()}…` : line,
    description: unknownCode ? `${text}\nWhere: ${unknownCode}` : text,
  }
}
