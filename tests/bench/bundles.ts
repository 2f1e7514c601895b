import { readdirSync, readFileSync } from 'node:fs'
import path from 'node:path'
import { gzipSync } from 'node:zlib'
import type { Measure } from './table'

const folder = path.join(process.env.EVRIX_ROOT ?? '.', 'dist/web/assets')
const LIMITS = [
  ['Counter', ['index', 'CounterView'], 150],
  ['Rounds', ['index', 'carry', 'RoundsView'], 200],
  ['Desk', ['index', 'DeskFrame', 'BenchView'], 350],
] as const

/** Gzipped JavaScript that a first view needs: its own files and everything they import. */
export function measureBundles(): Measure[] {
  const files = readdirSync(folder).filter((name) => name.endsWith('.js'))
  const named = (name: string) => files.find((file) => file.startsWith(`${name}-`))!
  return LIMITS.map(([view, entries, limit]) => {
    const needed = new Set<string>()
    const take = (file: string) => {
      if (needed.has(file)) return
      needed.add(file)
      const text = readFileSync(path.join(folder, file), 'utf8')
      for (const [, found] of text.matchAll(/(?:from|import)\s*["']\.\/([\w.-]+\.js)["']/g)) take(found!)
    }
    for (const name of entries) take(named(name))
    const size = [...needed].reduce((sum, file) => sum + gzipSync(readFileSync(path.join(folder, file))).length, 0) / 1000
    return {
      what: `JavaScript to first view, gzipped: ${view}`,
      measured: `${size.toFixed(0)} kB in ${needed.size} files`,
      limit: `at most ${limit} kB`,
      kept: size <= limit,
    }
  })
}
