import { readdirSync, readFileSync, rmSync } from 'node:fs'
import path from 'node:path'

/** Ends the browsers that wait, and what drives them. */
export default async function tearDown() {
  const shelf = process.env.EVRIX_TEST_SHELF
  for (const one of readdirSync(shelf)) await fetch(new URL('shutdown', JSON.parse(readFileSync(path.join(shelf, one), 'utf8')).server)).catch(() => null)
  rmSync(path.dirname(shelf), { recursive: true, force: true })
}
