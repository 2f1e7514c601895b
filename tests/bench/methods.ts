import { offerMethods, readPlanEstimate } from '#contract/methods'
import { Client } from '../kit'
import type { House, Running } from '../kit'
import { fillWithOrders } from './big'
import { median } from './table'
import type { Measure } from './table'

const ORDERS = 1_000_000
const METHODS = 2_000
const MOST_MS = 100
const ROUNDS = 12

/** Methods offered for an order, of a library of 2,000 and held against a million orders, four in ten of which were done by one. */
export async function measureMethods(house: House, server: Running): Promise<Measure[]> {
  await fillWithOrders(house, ORDERS)
  const connection = await house.connect()
  const query = (sql: string) => connection.query(sql)
  await query('SET FOREIGN_KEY_CHECKS = 0')
  await query(`INSERT INTO method (code, name, kind, trade_id, category_id, class_code, leaves, edition, search_text, version)
    SELECT CONCAT('B-', s.seq, '-', m.id), CONCAT(m.name, ' ', s.seq), m.kind, m.trade_id, m.category_id, m.class_code, m.leaves, 1, CONCAT(m.search_text, ' ', s.seq), 1
    FROM method m JOIN seq_1_to_${Math.ceil(METHODS / 13)} s`)
  await query(`INSERT INTO method_edition (method_id, edition, content, at)
    SELECT n.id, 1, e.content, e.at FROM method n JOIN method m ON m.id = SUBSTRING_INDEX(n.code, '-', -1)
    JOIN method_edition e ON e.method_id = m.id AND e.edition = 1 WHERE n.code LIKE 'B-%'`)
  await query(`INSERT IGNORE INTO order_method (order_id, method_id, edition, at)
    SELECT o.id, 1 + MOD(o.id * 31, ${METHODS}), 1, o.created_at FROM work_order o WHERE o.id % 10 < 4 AND o.state IN ('done', 'checked', 'closed')`)
  await query('ANALYZE TABLE method, method_edition, order_method')
  await connection.end()
  const desk = await new Client(server.url).signIn('maren.quill')
  const drafts = await house.rows<{ id: number; class_code: string | null }>(
    `SELECT o.id, a.class_code FROM work_order o LEFT JOIN asset a ON a.id = o.asset_id WHERE o.state = 'draft' AND o.discarded_at IS NULL ORDER BY a.class_code IS NULL, o.id DESC LIMIT ${ROUNDS}`,
  )
  const measures: Measure[] = []
  for (const [what, ask] of [
    ['methods offered for an order, 2,000 methods and a million orders', (orderId: number) => desk.must(offerMethods, { orderId })],
    ['what its plan will cost, beside what such orders cost', (orderId: number) => desk.must(readPlanEstimate, { orderId })],
  ] as const) {
    const took: number[] = []
    // The thread that looks is there once somebody has asked.
    await ask(drafts[0]!.id)
    for (const { id } of drafts) {
      const began = performance.now()
      await ask(id)
      took.push(performance.now() - began)
    }
    const ms = median(took)
    measures.push({
      what,
      measured: `${ms.toFixed(0)} ms at the median, ${Math.max(...took).toFixed(0)} at most`,
      limit: `under ${MOST_MS} ms`,
      kept: ms < MOST_MS,
    })
  }
  return measures
}
