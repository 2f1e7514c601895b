import { createConnection } from 'mysql2/promise'
import type { Connection, RowDataPacket } from 'mysql2/promise'
import { Precedents } from '#core/requests'
import type { Alike, Asked, Decided, Guesses } from '#core/requests'

export interface PrecedentJob {
  databaseUrl: string
  /** Requests that were decided, or decided otherwise, since. */
  changed?: number[]
  ask?: Asked
}

export type PrecedentAnswer = { ready: false } | { ready: true; size: number; guesses: Guesses | null; alike: Alike[] }

const AT_ONCE = 2_000
const ALIKE = 40
const SELECT = `SELECT r.id, CONCAT(r.summary, ' ', r.description) AS text, r.asset_id AS assetId, r.category_id AS categoryId, r.received_at AS at, p.path, o.trade_id AS tradeId, r.state
  FROM request r LEFT JOIN place p ON p.id = r.place_id LEFT JOIN request_order ro ON ro.request_id = r.id LEFT JOIN work_order o ON o.id = ro.order_id`
const DECIDED = "r.state IN ('accepted', 'joined') AND r.category_id IS NOT NULL"

const known = new Precedents()
let ready = false
let loading: Promise<void> | null = null

/** Keeps decided history in this thread; answers what a request is like. Reads it by itself, from a connection of its own. */
export default async function precedents({ databaseUrl, changed, ask }: PrecedentJob): Promise<PrecedentAnswer> {
  loading ??= withConnection(databaseUrl, loadAll).then(
    () => void (ready = true),
    (error: unknown) => {
      // Read again at the next question.
      loading = null
      throw error
    },
  )
  // What is asked meanwhile hears that history is not read yet, rather than waiting for it.
  if (!ready && ask) {
    loading.catch(() => undefined)
    return { ready: false }
  }
  await loading
  if (changed?.length) await withConnection(databaseUrl, (connection) => reread(connection, changed))
  const alike = ask ? known.alike(ask, ALIKE) : []
  return { ready: true, size: known.size, guesses: ask ? known.guess(ask, alike) : null, alike }
}

async function withConnection(databaseUrl: string, work: (connection: Connection) => Promise<void>): Promise<void> {
  const connection = await createConnection({ uri: databaseUrl, timezone: 'Z' })
  try {
    await work(connection)
  } finally {
    await connection.end()
  }
}

async function loadAll(connection: Connection): Promise<void> {
  for (let after = 0; ;) {
    const [rows] = await connection.query<RowDataPacket[]>(`${SELECT} WHERE ${DECIDED} AND r.id > ? ORDER BY r.id LIMIT ${AT_ONCE}`, [after])
    for (const row of rows) known.put(decidedOf(row))
    if (rows.length < AT_ONCE) return
    after = Number(rows.at(-1)!.id)
  }
}

async function reread(connection: Connection, ids: number[]): Promise<void> {
  for (const id of ids) known.drop(id)
  const [rows] = await connection.query<RowDataPacket[]>(`${SELECT} WHERE ${DECIDED} AND r.id IN (?)`, [ids])
  for (const row of rows) known.put(decidedOf(row))
}

const decidedOf = (row: RowDataPacket): Decided => ({
  id: Number(row.id),
  text: String(row.text),
  placePath: String(row.path ?? '')
    .split('/')
    .filter(Boolean)
    .map(Number),
  assetId: row.assetId as number | null,
  categoryId: row.categoryId as number | null,
  tradeId: row.tradeId as number | null,
  at: (row.at as Date).getTime(),
})
