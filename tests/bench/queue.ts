import { createPool } from 'mysql2/promise'
import type { RowDataPacket } from 'mysql2/promise'
import { listOrders } from '#contract/orders'
import type { OrderLine } from '#contract/orders'
import { Client } from '../kit'
import type { House, Running } from '../kit'
import { beside } from './table'
import type { Measure } from './table'

const ORDERS = 200_000
const ROUNDS = 60
const DEEP_PAGES = 40
/** The SQL a hand-written program would send for the same page. */
const SQL = `SELECT o.*, p.code AS place_code, p.name AS place_name FROM work_order o LEFT JOIN place p ON p.id = o.place_id
  WHERE o.state IN ('ready', 'dispatched') AND o.discarded_at IS NULL AND o.archived = 0`
const VISITS = `SELECT v.order_id, pe.name AS person, ve.name AS vendor FROM visit v LEFT JOIN technician t ON t.id = v.technician_id LEFT JOIN account a ON a.id = t.account_id
  LEFT JOIN person pe ON pe.id = a.person_id LEFT JOIN vendor ve ON ve.id = v.vendor_id WHERE v.order_id IN (?) AND v.state IN ('planned', 'on_site')`

/** A page of the queue over 200,000 orders against the same SQL through the driver, taking turns. */
export async function measureQueue(house: House, server: Running): Promise<Measure[]> {
  await fill(house)
  const pool = createPool({ uri: house.databaseUrl, timezone: 'Z', connectionLimit: 4 })
  const desk = await new Client(server.url).signIn('maren.quill')
  const direct = async (where: string, order: string, values: unknown[]) => {
    const began = performance.now()
    const [rows] = await pool.query<RowDataPacket[]>(`${SQL} ${where} ORDER BY ${order} LIMIT 51`, values)
    await pool.query(VISITS, [rows.slice(0, 50).map((row) => Number(row.id))])
    return performance.now() - began
  }
  const page = async (input: object) => {
    const began = performance.now()
    const answer = await desk.must(listOrders, { station: 'dispatch', limit: 50, ...input })
    return { took: performance.now() - began, answer }
  }
  let after: string | null = null
  let last: OrderLine | undefined
  for (let n = 0; n < DEEP_PAGES; n++) {
    const { answer } = await page({ limit: 100, ...(after ? { after } : {}) })
    after = answer.next
    last = answer.rows.at(-1)
  }
  const due = (at: string) => at.replace('T', ' ').replace('Z', '')
  const compare = async (name: string, input: object, where: string, order: string, values: unknown[]): Promise<Measure> => {
    const [theirs, ours]: [number[], number[]] = [[], []]
    for (let n = 0; n < ROUNDS; n++) {
      theirs.push(await direct(where, order, values))
      ours.push((await page(input)).took)
    }
    return beside(`queue page over ${ORDERS.toLocaleString('en')} orders, ${name}`, ours, theirs)
  }
  const measures = [
    await compare('first 50', {}, '', 'o.completion_due_at, o.id', []),
    await compare(`page ${(DEEP_PAGES * 100) / 50 + 1}`, { after: after! }, 'AND (o.completion_due_at, o.id) > (?, ?)', 'o.completion_due_at, o.id', [
      due(last!.target.completionDueAt),
      last!.id,
    ]),
    await compare(
      'one priority, filtered',
      { priority: 'urgent', sort: 'priority' },
      "AND o.priority = 'urgent'",
      'o.priority_rank, o.completion_due_at, o.id',
      [],
    ),
  ]
  await pool.end()
  return measures
}

/** Copies of what is there until there are enough, spread over states and time. */
async function fill(house: House): Promise<void> {
  const connection = await house.connect()
  const [columns] = await connection.query<RowDataPacket[]>(
    "SELECT column_name AS name FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = 'work_order' AND column_name <> 'id' AND is_generated = 'NEVER'",
  )
  const names = columns.map((row) => String(row.name))
  const from = (name: string) => {
    if (name === 'number') return "CONCAT('B-', n.n * 5000 + work_order.id)"
    if (name === 'state') return "ELT(1 + (work_order.id + n.n) % 8, 'ready', 'dispatched', 'closed', 'closed', 'closed', 'draft', 'on_job', 'done')"
    if (name.endsWith('_at') && !['discarded_at', 'clock_stopped_at', 'closed_at', 'finished_at'].includes(name)) return `${name} - INTERVAL n.n * 977 SECOND`
    return `work_order.${name}`
  }
  const [[count]] = (await connection.query<RowDataPacket[]>('SELECT COUNT(*) AS n FROM work_order')) as unknown as [[{ n: number }]]
  const times = Math.ceil((ORDERS - count.n) / count.n)
  await connection.query('CREATE TABLE base AS SELECT * FROM work_order')
  for (let n = 1; n <= times; n++)
    await connection.query(
      `INSERT INTO work_order (${names.join(', ')}) SELECT ${names.map(from).join(', ').replaceAll('work_order.', 'base.')} FROM base JOIN (SELECT ${n} AS n) n ORDER BY base.id`,
    )
  await connection.query('DROP TABLE base')
  await connection.query('ANALYZE TABLE work_order')
  await connection.end()
}
