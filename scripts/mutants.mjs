import { spawnSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { ensureInstalled, root } from './kit/tools.mjs'

/**
 * Puts small faults into the rules one at a time, room by room, and counts which of them the tests of that room
 * notice. `npm run mutants -- orders kit` takes those rooms only. What survived stands in .run/mutants, the reasons
 * why some may in docs/mutants.md. Ends with 1 when fewer than LEAST of them are caught.
 */
const LEAST = 85
await ensureInstalled({})
const all = readdirSync(path.join(root, 'core'), { withFileTypes: true })
  .filter((entry) => entry.isDirectory() && readdirSync(path.join(root, 'core', entry.name)).some((file) => file.endsWith('.test.ts')))
  .map((entry) => entry.name)
const rooms = process.argv.length > 2 ? process.argv.slice(2) : all
const folder = path.join(root, '.run/mutants')
mkdirSync(folder, { recursive: true })
const totals = { caught: 0, lives: 0 }
for (const room of rooms) {
  const began = Date.now()
  const run = spawnSync('npx', ['stryker', 'run', '--logLevel', 'error'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, EVRIX_ROOM: room },
  })
  if (run.status !== 0) {
    console.error(`${room}: its tests fail without any fault put in.`)
    process.exit(1)
  }
  const { files } = JSON.parse(readFileSync(path.join(folder, `${room}.json`), 'utf8'))
  const mutants = Object.entries(files).flatMap(([file, { mutants: found, source }]) => found.map((mutant) => ({ ...mutant, file, source })))
  const caught = mutants.filter((mutant) => ['Killed', 'Timeout'].includes(mutant.status))
  const lives = mutants.filter((mutant) => ['Survived', 'NoCoverage'].includes(mutant.status))
  totals.caught += caught.length
  totals.lives += lives.length
  writeFileSync(path.join(folder, `${room}.txt`), lives.map(lineOf).join('\n'))
  console.log(`${room}: ${share(caught.length, lives.length)} of ${caught.length + lives.length} caught, ${((Date.now() - began) / 1000).toFixed(0)} s`)
}
console.log(`all: ${share(totals.caught, totals.lives)} of ${totals.caught + totals.lives}`)
process.exit((100 * totals.caught) / (totals.caught + totals.lives) >= LEAST ? 0 : 1)

function share(caught, lives) {
  return `${((100 * caught) / (caught + lives)).toFixed(1)} %`
}

function lineOf({ file, source, location, mutatorName, replacement, status }) {
  const line = source.split('\n')[location.start.line - 1]
  const from = location.start.line === location.end.line ? line.slice(location.start.column - 1, location.end.column - 1) : line.trim()
  return `${file}:${location.start.line} ${mutatorName}${status === 'NoCoverage' ? ' (never run)' : ''}: ${from.trim()} → ${replacement}`
}
