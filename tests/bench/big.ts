import type { RowDataPacket } from 'mysql2/promise'
import type { House } from '../kit'

/** How the orders of a house that has been at it for years are spread over the states, in thousandths. */
const SPREAD: [state: string, share: number][] = [
  ['draft', 3],
  ['to_approve', 3],
  ['ready', 4],
  ['dispatched', 6],
  ['on_job', 2],
  ['on_hold', 4],
  ['done', 5],
  ['checked', 5],
  ['cancelled', 40],
  ['closed', 928],
]
const ARCHIVED_IN_TEN = 3
const SHIFT_SECONDS = 5_400
const COPIES_AT_ONCE = 20

/**
 * Copies of what is there under other numbers and at other times, until there are `orders`. Written into a
 * table without indexes that then gets them all and takes the place of the first: quicker by far.
 */
export async function fillWithOrders(house: House, orders: number): Promise<void> {
  const connection = await house.connect()
  const query = async (sql: string) => (await connection.query<RowDataPacket[]>(sql))[0]
  const columns = (
    await query(
      "SELECT column_name AS name FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = 'work_order' AND is_generated = 'NEVER'",
    )
  ).map((row) => String(row.name))
  const [count] = await query('SELECT COUNT(*) AS n, MAX(id) AS top FROM work_order')
  const [made] = await query('SHOW CREATE TABLE work_order')
  const keys = String(made!['Create Table'])
    .match(/^\s+(UNIQUE |FULLTEXT )?KEY .*\)/gm)!
    .map((line) => line.trim())
  await query('CREATE TABLE big LIKE work_order')
  await query(`ALTER TABLE big ${keys.map((key) => `DROP INDEX ${/`(\w+)`/.exec(key)![1]}`).join(', ')}`)
  await query('INSERT INTO big SELECT * FROM work_order')
  const shared = columns.filter((name) => name !== 'id')
  const copies = Math.ceil((orders - Number(count!.n)) / Number(count!.n))
  const state = stateOf('(b.id * 7 + s.seq * 13)')
  const over = (states: string) => `${state} IN (${states})`
  const value = (name: string) => {
    if (name === 'number') return "CONCAT('B', s.seq, '-', b.id)"
    if (name === 'state') return state
    if (name === 'archived') return `${over("'closed', 'cancelled'")} AND (b.id + s.seq) % 10 < ${ARCHIVED_IN_TEN}`
    if (name === 'hold_reason') return `IF(${state} = 'on_hold', 'part', NULL)`
    if (name === 'held_from') return `IF(${state} = 'on_hold', 'ready', NULL)`
    if (name === 'clock_stopped_at') return 'NULL'
    // Nobody is told of promises of years ago.
    if (name === 'told_standing') return "'over'"
    const shifted = (column: string) => `${column} - INTERVAL s.seq * ${SHIFT_SECONDS} SECOND`
    if (name === 'finished_at') return `IF(${over("'done', 'checked', 'closed'")}, ${shifted('COALESCE(b.finished_at, b.created_at)')}, NULL)`
    if (name === 'closed_at') return `IF(${over("'closed', 'cancelled'")}, ${shifted('COALESCE(b.closed_at, b.created_at)')}, NULL)`
    return name.endsWith('_at') && name !== 'discarded_at' ? shifted(`b.${name}`) : `b.${name}`
  }
  for (let from = 1; from <= copies; from += COPIES_AT_ONCE)
    await query(
      `INSERT INTO big (${shared.join(', ')}) SELECT ${shared.map(value).join(', ')} FROM work_order b JOIN seq_${from}_to_${Math.min(copies, from + COPIES_AT_ONCE - 1)} s ORDER BY s.seq, b.id`,
    )
  const usual = keys.filter((key) => !key.startsWith('FULLTEXT'))
  await query(`ALTER TABLE big ${usual.map((key) => `ADD ${key}`).join(', ')}`)
  for (const key of keys.filter((one) => one.startsWith('FULLTEXT'))) await query(`ALTER TABLE big ADD ${key}`)
  await query('SET FOREIGN_KEY_CHECKS = 0')
  await query('RENAME TABLE work_order TO small, big TO work_order')
  await query('ANALYZE TABLE work_order')
  await connection.end()
}

/** The state a number falls on, by the shares above. */
function stateOf(number: string): string {
  let upTo = 0
  const cases = SPREAD.map(([state, share]) => `WHEN ${number} % 1000 < ${(upTo += share)} THEN '${state}'`)
  return `(CASE ${cases.join(' ')} END)`
}
