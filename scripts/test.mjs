import { spawn } from 'node:child_process'
import { mkdirSync, rmSync } from 'node:fs'
import path from 'node:path'
import { ensureInstalled, root } from './kit/tools.mjs'

/** Every check: what reads the code, then the tests. A database and a folder of their own. */
await ensureInstalled({ mariadbd: 'mariadb-server', chromium: 'chromium', chromedriver: 'chromium-driver', pdftotext: 'poppler-utils' })
const { startDatabase } = await import('./kit/database.mjs')
const { ownFolder } = await import('./kit/folders.mjs')
const { buildApart } = await import('./kit/processes.mjs')

const folder = await ownFolder('evrix-test-')
/** Most of what they make is gone at once: with room for it, less is carried about. An eighth of their time. */
const ROOMY = '--max-semi-space-size=128'
let database = null
let failed = false
/** The checks that run now: they and all they have started are ended when this is. */
const running = new Set()
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.once(signal, () => {
    console.error(`\nEnded by ${signal}.`)
    endRunning()
    void (database?.stop() ?? Promise.resolve()).finally(() => {
      rmSync(folder, { recursive: true, force: true })
      process.exit(1)
    })
  })
try {
  const world = await readAndBuild()
  database = await startDatabase(folder, { quick: true })
  // The build leaves NODE_ENV at production, in which components do not tell their tests what they emit.
  const env = { NODE_ENV: 'test', EVRIX_TEST_WORLD: world, EVRIX_TEST_DATABASE: database.url, EVRIX_TEST_FOLDER: folder, NODE_OPTIONS: '--no-warnings' }
  const only = process.argv.slice(2)
  // Three at once on two cores: those that wait for a server, a mail or a page leave room for the third.
  await run('tests', 'npx', ['jest', '--config', 'jest.config.mjs', '--maxWorkers=3', '--forceExit', ...only], env)
} catch (error) {
  failed = true
  endRunning()
  console.error(error instanceof Error ? error.message : error)
} finally {
  await database?.stop()
  rmSync(folder, { recursive: true, force: true })
}
process.exit(failed ? 1 : 0)

/** What reads the code, and the world of the tests, longest first: two at a time on two cores. @returns where the world is */
async function readAndBuild() {
  let world = null
  const waiting = [
    () => run('types of the interface', 'node', [ROOMY, 'node_modules/vue-tsc/bin/vue-tsc.js', '--noEmit', '-p', 'tsconfig.web.json']),
    () => run('lint', 'node', ['node_modules/eslint/bin/eslint.js', '.', '--max-warnings', '0']),
    () => run('format', 'node', [ROOMY, 'node_modules/prettier/bin/prettier.cjs', '--check', '.', '--log-level', 'warn']),
    async () => {
      await buildApart()
      world = await makeWorldOnce()
    },
    () => run('types', 'node', ['node_modules/typescript7/bin/tsc', '--noEmit', '-p', 'tsconfig.rest.json']),
    () => run('promises', 'node', ['scripts/lint/promises.mjs']),
    () => run('answers', 'node', ['scripts/answers.mjs', '--check']),
    () => run('boundaries', 'npx', ['depcruise', 'core', 'contract', 'server', 'web', 'standins', 'demo', 'tests', '--config', '.dependency-cruiser.cjs']),
  ]
  const line = async () => {
    for (let next = waiting.shift(); next; next = waiting.shift()) await next()
  }
  await Promise.all([line(), line()])
  return world
}

/** The demo world at the moment most tests happen, as the files of a server that has ended: every test starts one of its own on a copy. */
async function makeWorldOnce() {
  const { ensureSchema } = await import('./kit/database.mjs')
  const { runProgram } = await import('./kit/processes.mjs')
  const began = Date.now()
  const files = path.join(folder, 'world')
  mkdirSync(files)
  database = await startDatabase(files, { quick: true })
  const url = await ensureSchema(database.url, 'evrix_world')
  await runProgram('demo', { EVRIX_DATABASE_URL: url, EVRIX_DATA_DIR: folder, EVRIX_NOW: '2026-11-23T10:30:00Z' })
  await makeReadyForTests(url)
  await database.stop()
  database = null
  console.log(`\n— world: ${((Date.now() - began) / 1000).toFixed(0)} s`)
  return files
}

/**
 * What the tables hold is counted before their files are taken: a copy that knew nothing of it would read them in the wrong
 * order. Passwords stay what they are and are looked at with less care: tests sign in a thousand times.
 */
async function makeReadyForTests(url) {
  const { createConnection } = await import('mysql2/promise')
  const { hash } = await import('@node-rs/argon2')
  const connection = await createConnection(url)
  const quick = await hash('slack-tide-42', { memoryCost: 8, timeCost: 1, parallelism: 1 })
  await connection.query('UPDATE account SET password_hash = ?', [quick])
  const [tables] = await connection.query('SHOW TABLES')
  await connection.query(`ANALYZE TABLE ${tables.map((row) => `\`${Object.values(row)[0]}\``).join(', ')}`)
  await connection.end()
}

function run(name, program, args, env = {}) {
  console.log(`\n— ${name}`)
  const began = Date.now()
  return new Promise((resolve, reject) => {
    const child = spawn(program, args, { cwd: root, env: { ...process.env, ...env }, stdio: ['ignore', 'inherit', 'inherit'], detached: true })
    running.add(child)
    child.once('exit', (code) => {
      running.delete(child)
      endGroup(child)
      console.log(`  ${name}: ${((Date.now() - began) / 1000).toFixed(0)} s`)
      if (code === 0) resolve()
      else reject(new Error(`${name} failed.`))
    })
  })
}

function endRunning() {
  for (const child of running) endGroup(child)
}

/** Ends what a check has left behind, as a browser of a test that failed. */
function endGroup(child) {
  try {
    process.kill(-child.pid, 'SIGKILL')
  } catch {
    // All of it has ended by itself.
  }
}
