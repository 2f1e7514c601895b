import { spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import type { Measure } from './table'

/** The second `npm start` on a data folder, from the command to the printed address. */
export async function measureStart(): Promise<Measure> {
  const folder = mkdtempSync(path.join(process.env.EVRIX_TEST_FOLDER ?? tmpdir(), 'start-'))
  const first = await start(folder)
  const second = await start(folder)
  return {
    what: 'second npm start to ready',
    measured: `${second.toFixed(1)} s (first, with the demo world, ${first.toFixed(1)} s)`,
    limit: 'under 10 s',
    kept: second < 10,
  }
}

function start(folder: string): Promise<number> {
  const root = process.env.EVRIX_ROOT ?? '.'
  const began = performance.now()
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [path.join(root, 'scripts/start.mjs')], {
      cwd: root,
      env: { ...process.env, EVRIX_DATA_DIR: folder, EVRIX_DATABASE_URL: '', PORT: '0' },
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    let said = ''
    let took = 0
    child.stdout.on('data', (chunk: Buffer) => {
      said += chunk.toString()
      if (took || !said.includes('Evrix is ready')) return
      took = (performance.now() - began) / 1000
      child.kill('SIGTERM')
    })
    child.once('exit', (code) => (took ? resolve(took) : reject(new Error(`npm start ended with ${code}: ${said}`))))
  })
}
