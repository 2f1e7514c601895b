import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import { root } from './kit/tools.mjs'

const SOURCES = [
  'core',
  'contract',
  'server',
  'web',
  'standins',
  'demo',
  'vite.config.ts',
  'package.json',
  'package-lock.json',
  'index.html',
  'public',
  'scripts/kit/chunksFor.ts',
  'scripts/kit/fewFiles.ts',
  'scripts/build.mjs',
]
const PROGRAMS = {
  main: 'server/main.ts',
  serve: 'server/serve.ts',
  'jobSheets.worker': 'server/jobsheets/jobSheets.worker.ts',
  'readLeave.worker': 'server/shifts/readLeave.worker.ts',
  'statementPdf.worker': 'server/ledger/statementPdf.worker.ts',
  'readMime.worker': 'server/mail/readMime.worker.ts',
  'precedents.worker': 'server/requests/precedents.worker.ts',
  'spelling.worker': 'server/lists/spelling.worker.ts',
  'exportList.worker': 'server/lists/exportList.worker.ts',
  'readPicture.worker': 'server/kit/readPicture.worker.ts',
  'labels.worker': 'server/places/labels.worker.ts',
  'readCobie.worker': 'server/cobie/readCobie.worker.ts',
  'writeCobie.worker': 'server/cobie/writeCobie.worker.ts',
  'readWords.worker': 'server/documents/readWords.worker.ts',
  'readPlanFile.worker': 'server/floorplans/readPlanFile.worker.ts',
  'methodOffers.worker': 'server/methods/methodOffers.worker.ts',
  'purchasePdf.worker': 'server/stock/purchasePdf.worker.ts',
  'countSheetPdf.worker': 'server/stock/countSheetPdf.worker.ts',
  'toBuy.worker': 'server/stock/toBuy.worker.ts',
  'dayPlan.worker': 'server/dayplans/dayPlan.worker.ts',
  'dayPlanBound.worker': 'server/dayplans/dayPlanBound.worker.ts',
  'readTable.worker': 'server/setup/readTable.worker.ts',
  mail: 'standins/mail/main.ts',
  bookings: 'standins/bookings/main.ts',
  push: 'standins/push/main.ts',
  demo: 'demo/main.ts',
}

/** Builds server and interface into dist/, unless nothing they are made from has changed. */
export async function build() {
  const stamp = path.join(root, 'dist/.sources')
  const now = fingerprint()
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return
  console.log('Building …')
  const { build: bundle } = await import('esbuild')
  await bundle({
    entryPoints: Object.fromEntries(Object.entries(PROGRAMS).map(([name, file]) => [name, path.join(root, file)])),
    outdir: path.join(root, 'dist/server'),
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    sourcemap: true,
    absWorkingDir: root,
    logLevel: 'warning',
  })
  const vite = await import('vite')
  await vite.build({ root, logLevel: 'warn' })
  writeFileSync(stamp, now)
}

function fingerprint() {
  const hash = createHash('sha256')
  const add = (file) => hash.update(file).update(readFileSync(path.join(root, file)))
  const walk = (place) => {
    if (!existsSync(path.join(root, place))) return
    if (path.extname(place)) return add(place)
    for (const entry of readdirSync(path.join(root, place), { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      const file = path.join(place, entry.name)
      if (entry.isDirectory()) walk(file)
      else if (!/\.test\.ts$/.test(file)) add(file)
    }
  }
  SOURCES.forEach(walk)
  return hash.digest('hex')
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) await build()
