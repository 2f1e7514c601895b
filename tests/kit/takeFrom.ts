import { readdirSync, readFileSync, renameSync } from 'node:fs'
import path from 'node:path'

/** What waits on a shelf, one after another. Whoever moves a file has what it tells of; who comes too late takes another. */
export function* takeFrom<What>(from: string | undefined, folder: string): Generator<What> {
  for (const one of from ? readdirSync(from) : []) {
    const taken = path.join(folder, `taken-${one}`)
    try {
      renameSync(path.join(from!, one), taken)
    } catch {
      continue
    }
    yield JSON.parse(readFileSync(taken, 'utf8')) as What
  }
}
