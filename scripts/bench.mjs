import { spawn } from 'node:child_process'
import { rmSync } from 'node:fs'
import path from 'node:path'
import { ensureInstalled, root } from './kit/tools.mjs'

/** Measures speed and memory against the limits of the issue, each as a ratio or a bound within this one run. */
await ensureInstalled({ mariadbd: 'mariadb-server', chromium: 'chromium', chromedriver: 'chromium-driver' })
const { ownFolder } = await import('./kit/folders.mjs')
const { buildApart } = await import('./kit/processes.mjs')
await buildApart()
const { build: bundle } = await import('esbuild')
await bundle({
  entryPoints: [path.join(root, 'tests/bench/main.ts')],
  outfile: path.join(root, 'dist/server/bench.js'),
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  logLevel: 'warning',
})
const { startDatabase } = await import('./kit/database.mjs')
const folder = await ownFolder('evrix-bench-')
const database = await startDatabase(folder)
let code
let running = null
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.once(signal, () => {
    running?.kill('SIGKILL')
    void database.stop().finally(() => {
      rmSync(folder, { recursive: true, force: true })
      process.exit(1)
    })
  })
try {
  code = await new Promise((resolve) => {
    const child = spawn(process.execPath, [path.join(root, 'dist/server/bench.js'), ...process.argv.slice(2)], {
      cwd: root,
      env: { ...process.env, EVRIX_TEST_DATABASE: database.url, EVRIX_TEST_FOLDER: folder, EVRIX_ROOT: root },
      stdio: ['ignore', 'inherit', 'inherit'],
    })
    running = child
    child.once('exit', (status) => resolve(status ?? 1))
  })
} finally {
  await database.stop()
  rmSync(folder, { recursive: true, force: true })
}
process.exit(code)
