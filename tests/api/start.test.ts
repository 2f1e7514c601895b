import { spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { createConnection } from 'mysql2/promise'
import { readHealth } from '#contract/setup'
import { Client, report } from '../kit'
import type { Cast } from '../kit'

/** `npm start` against a server that is there already: EVRIX_DATABASE_URL, EVRIX_DATA_DIR, EVRIX_NOW, PORT. */
const root = process.env.EVRIX_ROOT ?? process.cwd()
const folder = mkdtempSync(path.join(process.env.EVRIX_TEST_FOLDER ?? tmpdir(), 'start-'))
const schema = `evrix_start_${process.pid}`
const NOW = '2027-03-08T09:00:00Z'

async function start(): Promise<{ url: string; said: string; stop: () => Promise<number | null> }> {
  const child = spawn(process.execPath, ['scripts/start.mjs'], {
    cwd: root,
    env: {
      ...process.env,
      EVRIX_DATABASE_URL: `${process.env.EVRIX_TEST_DATABASE}/${schema}`,
      EVRIX_DATA_DIR: folder,
      EVRIX_NOW: NOW,
      PORT: '0',
      EVRIX_LOG: 'error',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve))
  const said = await new Promise<string>((resolve, reject) => {
    let text = ''
    child.stdout.on('data', (chunk: Buffer) => {
      text += chunk.toString()
      if (text.includes('the data stays.')) resolve(text)
    })
    child.once('exit', (code) => reject(new Error(`ended with ${code}: ${text}`)))
  })
  return { url: /The Desk\s+(\S+)/.exec(said)![1]!, said, stop: () => (child.kill('SIGTERM'), ended) }
}

test('makes the demo world once in the database given, says where and who, and a second start keeps the data', async () => {
  const connection = await createConnection(process.env.EVRIX_TEST_DATABASE!)
  await connection.query(`CREATE DATABASE ${schema} CHARACTER SET utf8mb4 COLLATE utf8mb4_general_ci`)
  const first = await start()
  expect(first.said).toContain('maren.quill@skerry.example')
  expect(first.said).toContain('slack-tide-42')
  const coordinator = await new Client(first.url).signIn('maren.quill')
  const health = await coordinator.call(readHealth, {})
  expect(health.body).toMatchObject({ state: 'in order', database: true })
  expect(health.headers.get('X-Evrix-Now')).toMatch(/^2027-03-08T09:0/)
  const { number } = await report({ coordinator, anybody: new Client(first.url) } as Cast)
  expect(await first.stop()).toBe(0)
  const count = async () => ((await connection.query(`SELECT COUNT(*) AS n FROM ${schema}.request`)) as unknown as [{ n: number }[]])[0][0]!.n
  const before = await count()
  const second = await start()
  expect(await count()).toBe(before)
  const [[row]] = (await connection.query(`SELECT number FROM ${schema}.request ORDER BY id DESC LIMIT 1`)) as unknown as [[{ number: string }]]
  expect(row.number).toBe(number)
  expect(await second.stop()).toBe(0)
  await connection.end()
})
