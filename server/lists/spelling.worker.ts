import { createConnection } from 'mysql2/promise'
import type { Connection, RowDataPacket } from 'mysql2/promise'
import { Spelling } from '#core/lists'

export interface SpellingJob {
  databaseUrl: string
  words: string[]
}

const AT_ONCE = 5_000
/** As many of the newest of each kind are read: the words of a house do not change with its age. */
const NEWEST = 100_000
const SOURCES = [
  { table: 'work_order', text: "CONCAT(summary, ' ', description)" },
  { table: 'request', text: "CONCAT(summary, ' ', description)" },
  { table: 'comment', text: 'text' },
  { table: 'place', text: 'search_text' },
  { table: 'asset', text: 'search_text' },
  { table: 'person', text: 'search_text' },
]

const spelling = new Spelling()
const readTo = new Map<string, number>()
let reading: Promise<void> = Promise.resolve()

/** Puts mistyped words right by the words that were written before, which it reads by itself and goes on reading. */
export default async function spell({ databaseUrl, words }: SpellingJob): Promise<string[]> {
  reading = reading.catch(() => undefined).then(() => readOn(databaseUrl))
  await reading
  return words.map((word) => spelling.mend(word))
}

async function readOn(databaseUrl: string): Promise<void> {
  const connection = await createConnection({ uri: databaseUrl, timezone: 'Z' })
  try {
    for (const source of SOURCES) await readTable(connection, source)
  } finally {
    await connection.end()
  }
}

async function readTable(connection: Connection, { table, text }: (typeof SOURCES)[number]): Promise<void> {
  let after = readTo.get(table)
  if (after === undefined) {
    const [[top]] = (await connection.query(`SELECT COALESCE(MAX(id), 0) AS id FROM ${table}`)) as unknown as [[{ id: number }]]
    after = Math.max(0, top.id - NEWEST)
  }
  for (;;) {
    const [rows]: [RowDataPacket[], unknown] = await connection.query<RowDataPacket[]>(
      `SELECT id, ${text} AS text FROM ${table} WHERE id > ? ORDER BY id LIMIT ${AT_ONCE}`,
      [after],
    )
    for (const row of rows) spelling.learn(String(row.text))
    after = rows.length ? Number(rows.at(-1)!.id) : after
    readTo.set(table, after)
    if (rows.length < AT_ONCE) return
  }
}
