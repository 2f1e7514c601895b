import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { ownFolder } from '../../scripts/kit/folders.mjs'
import { identityOf } from '../../scripts/kit/processes.mjs'
import { listOrders, postOrder } from '#contract/orders'
import { Client, House } from '../kit'

const ORDERS = 500
const KILLS = 6

/** The server is killed at random moments while 500 orders are posted; nothing is half-posted or posted twice. */
test('SIGKILL while 500 orders are being posted: each exactly once or not at all, debits equal credits', async () => {
  const house = await House.open('fault')
  try {
    await makeChecked(house)
    const waiting = (await house.rows<{ id: number; version: number }>("SELECT id, version FROM work_order WHERE state = 'checked' ORDER BY id")).map(
      (row) => ({ ...row, key: `post-${row.id}-${'k'.repeat(16)}` }),
    )
    expect(waiting.length).toBeGreaterThanOrEqual(ORDERS)
    const before = new Set((await house.rows<{ id: number }>('SELECT id FROM posting')).map((row) => row.id))
    let server = await house.start()
    let kills = 0
    let answered = 0
    const left = [...waiting]
    while (left.length) {
      const clerk = await new Client(server.url).signIn('petra.lindqvist')
      const dies = kills < KILLS
      const death = dies ? new Promise<void>((resolve) => setTimeout(() => void server.kill().then(resolve), 120 + Math.random() * 900)) : null
      // Eight at a time, as eight clerks would; a lost answer leaves the order in the list, to be sent again with its key.
      const next = [...left]
      const line = async () => {
        for (let one = next.shift(); one; one = next.shift()) {
          const reply = await clerk.call(postOrder, { id: one.id, version: one.version }, { key: one.key }).catch(() => null)
          if (!reply) return
          expect([one.id, reply.status]).toEqual([one.id, 200])
          answered++
          left.splice(left.indexOf(one), 1)
        }
      }
      await Promise.all(Array.from({ length: 8 }, line))
      if (!death) break
      await death
      kills++
      await checkBooks(house, before)
      server = await house.start()
    }
    expect(kills).toBeGreaterThan(0)
    expect(answered).toBe(waiting.length)
    const posted = await checkBooks(house, before)
    expect(posted).toBe(waiting.length)
    const desk = await new Client(server.url).signIn('maren.quill')
    expect((await desk.must(listOrders, { station: 'charges' })).rows).toEqual([])
    await everyEventOnce(house)
  } finally {
    await house.close()
  }
})

/** Takes closed orders of the history back to checked, with their postings gone, as if never charged. */
async function makeChecked(house: House): Promise<void> {
  const connection = await house.connect()
  await connection.query('CREATE TABLE chosen AS SELECT id FROM work_order WHERE state = ? ORDER BY id DESC LIMIT ?', ['closed', ORDERS])
  for (const sql of [
    'DELETE charge_line FROM charge_line JOIN charge ON charge.id = charge_id JOIN chosen ON chosen.id = charge.order_id',
    'DELETE charge FROM charge JOIN chosen ON chosen.id = charge.order_id',
    'DELETE journal_entry FROM journal_entry JOIN posting ON posting.id = posting_id JOIN chosen ON chosen.id = posting.order_id',
    'DELETE payable FROM payable JOIN chosen ON chosen.id = payable.order_id',
    'DELETE posting FROM posting JOIN chosen ON chosen.id = posting.order_id',
    "UPDATE work_order JOIN chosen ON chosen.id = work_order.id SET state = 'checked', closed_at = NULL",
    'DROP TABLE chosen',
  ])
    await connection.query(sql)
  await connection.end()
}

/** What must hold at any moment, killed or not. Answers how many orders are posted. */
async function checkBooks(house: House, before: Set<number>): Promise<number> {
  expect(await house.rows('SELECT posting_id FROM journal_entry GROUP BY posting_id HAVING SUM(debit_minor) <> SUM(credit_minor)')).toEqual([])
  expect(await house.rows("SELECT order_id FROM posting WHERE kind = 'posting' GROUP BY order_id HAVING COUNT(*) > 1")).toEqual([])
  expect(await house.rows("SELECT work_order.id FROM work_order JOIN posting ON order_id = work_order.id WHERE state <> 'closed'")).toEqual([])
  expect(await house.rows('SELECT posting.id FROM posting LEFT JOIN charge ON posting_id = posting.id WHERE charge.id IS NULL')).toEqual([])
  expect(
    await house.rows(
      'SELECT charge.id FROM charge LEFT JOIN charge_line ON charge_id = charge.id GROUP BY charge.id, charge.net_minor HAVING COALESCE(SUM(charge_line.net_minor), 0) <> charge.net_minor',
    ),
  ).toEqual([])
  return (await house.rows<{ id: number }>('SELECT id FROM posting')).filter((row) => !before.has(row.id)).length
}

/** Every posting is told of by one event, and every event found its place in the order of events. */
async function everyEventOnce(house: House): Promise<void> {
  for (let tries = 0; tries < 50; tries++) {
    const [open] = await house.rows<{ n: number }>('SELECT COUNT(*) AS n FROM event WHERE seq IS NULL')
    if (!open!.n) break
    await new Promise((resolve) => setTimeout(resolve, 200))
  }
  const [events] = await house.rows<{ n: number; top: number; different: number }>(
    'SELECT COUNT(*) AS n, MAX(seq) AS top, COUNT(DISTINCT seq) AS different FROM event',
  )
  expect([events!.top, events!.different]).toEqual([events!.n, events!.n])
}

test('folders of runs that were killed are removed by the next one, with the database left in them; those of runs that go on stay', async () => {
  const prefix = `evrix-left-${process.pid}-`
  const folderOf = (owner: object | null) => {
    const folder = mkdtempSync(path.join(tmpdir(), prefix))
    if (owner) writeFileSync(path.join(folder, 'owner.json'), JSON.stringify(owner))
    mkdirSync(path.join(folder, 'mariadb'))
    return folder
  }
  const left = spawn('sleep', ['300'])
  const ended = new Promise((resolve) => left.once('exit', resolve))
  // A number that is used again by somebody else: its moment of beginning differs.
  const killed = folderOf({ pid: process.pid, identity: '1' })
  writeFileSync(path.join(killed, 'mariadb.json'), JSON.stringify({ pid: left.pid, identity: identityOf(left.pid!), run: killed }))
  const running = folderOf({ pid: process.pid, identity: identityOf(process.pid) })
  const foreign = folderOf(null)
  const own = await ownFolder(prefix)
  await ended
  expect([killed, running, foreign, own].map((folder) => existsSync(folder))).toEqual([false, true, true, true])
  for (const folder of [running, foreign, own]) rmSync(folder, { recursive: true, force: true })
})
