import { listOrders, readOrder } from '#contract/orders'
import { addPart, listToBuy, moveStock } from '#contract/stock'
import { addTemplate, makeOrders, previewOrders } from '#contract/templates'
import { castAt, Client, orderAt } from '../kit'
import type { House, Running } from '../kit'
import { median } from './table'
import type { Measure } from './table'

const SPACES = 400
const MOST_MAKING_MS = 10_000
const PARTS = 20_000
const MOVEMENTS = 36
const MOST_BUYING_MS = 2_000
const AT_ONCE = 50
const ON_HAND = 20
const MOST_ISSUE_MS = 300
const WARMING = 3
const BURSTS = 5

/** Orders from a template while somebody works on a queue, what to buy of a large store, and fifty who want what there are twenty of. */
export async function measurePlanning(house: House, server: Running): Promise<Measure[]> {
  const desk = await new Client(server.url).signIn('maren.quill')
  return [...(await measureTemplate(house, desk)), ...(await measureIssues(server, desk)), ...(await measureBuying(house, desk))]
}

async function measureTemplate(house: House, desk: Client): Promise<Measure[]> {
  await house.rows(
    `INSERT INTO place (site_id, parent_id, kind, code, name, path, search_text)
      SELECT 1, f.id, 'space', CONCAT('BN-', s.seq), CONCAT('Bench room ', s.seq), '', CONCAT('bn-', s.seq) FROM place f JOIN seq_1_to_${SPACES} s WHERE f.code = 'GAN-1'`,
  )
  await house.rows("UPDATE place p JOIN place f ON f.id = p.parent_id SET p.path = CONCAT(f.path, p.id, '/') WHERE p.code LIKE 'BN-%'")
  const method = (await house.rows<{ id: number }>("SELECT id FROM method WHERE code = 'M-COIL-1'"))[0]!.id
  const template = await desk.must(addTemplate, {
    siteId: 1,
    name: 'Bench',
    kind: 'preventive',
    summary: 'Bench work, {code}',
    description: 'As the method says.',
    priority: 'routine',
    categoryId: null,
    tradeId: null,
    teamId: null,
    leadId: null,
    supervisorId: null,
    methodId: method,
    payerRule: 'fixed',
    payerId: 1,
    estimateMinor: 1_000,
    dueDays: null,
  })
  const codes = Array.from({ length: SPACES }, (_, n) => `BN-${n + 1}`).join('\n')
  const queue = async () => {
    const began = performance.now()
    await desk.must(listOrders, { station: 'planning' })
    return performance.now() - began
  }
  const idle: number[] = []
  for (let n = 0; n < 12; n++) idle.push(await queue())
  const meanwhile: number[] = []
  let made = false
  const began = performance.now()
  const making = (async () => {
    await desk.must(previewOrders, { id: template.id, codes })
    await desk.must(makeOrders, { id: template.id, version: template.version, lead: 'none', codes })
    made = true
  })()
  while (!made) {
    meanwhile.push(await queue())
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
  await making
  const took = performance.now() - began
  const times = median(meanwhile) / median(idle)
  return [
    {
      what: `${SPACES} orders from one template, previewed and made`,
      measured: `${(took / 1000).toFixed(1)} s`,
      limit: `under ${MOST_MAKING_MS / 1000} s`,
      kept: took < MOST_MAKING_MS,
    },
    { what: 'a page of a queue meanwhile', measured: `${times.toFixed(2)} x idle`, limit: 'at most 2 x', kept: times <= 2 },
  ]
}

async function measureIssues(server: Running, desk: Client): Promise<Measure[]> {
  const cast = await castAt(server.url)
  const order = await orderAt(cast, 'ready')
  const { number } = await desk.must(readOrder, { id: order.id })
  const took: number[] = []
  const succeeded: number[] = []
  // The first of them find a server that has just begun.
  for (let burst = 0; burst < WARMING + BURSTS; burst++) {
    const { id } = await desk.must(addPart, { code: `BENCH-${burst}`, name: 'Bench part', unit: 'pc' })
    await desk.must(moveStock, { act: 'receipt', storeId: 1, partId: id, quantity: String(ON_HAND), unitCostMinor: 100 })
    const replies = await Promise.all(
      Array.from({ length: AT_ONCE }, async () => {
        const began = performance.now()
        const { status } = await desk.call(moveStock, { act: 'issue', storeId: 1, partId: id, quantity: '1', orderNumber: number })
        if (burst >= WARMING) took.push(performance.now() - began)
        return status
      }),
    )
    succeeded.push(replies.filter((status) => status === 200).length)
  }
  const exactly = succeeded.every((n) => n === ON_HAND)
  const ms = median(took)
  return [
    {
      what: `${AT_ONCE} issues at once of a part with ${ON_HAND} on hand`,
      measured: `${exactly ? ON_HAND : succeeded.join(', ')} succeed, ${ms.toFixed(0)} ms at the median`,
      limit: `exactly ${ON_HAND}, under ${MOST_ISSUE_MS} ms`,
      kept: exactly && ms < MOST_ISSUE_MS,
    },
  ]
}

async function measureBuying(house: House, desk: Client): Promise<Measure[]> {
  const connection = await house.connect()
  const query = (sql: string) => connection.query(sql)
  await query('SET FOREIGN_KEY_CHECKS = 0')
  await query(
    `INSERT INTO part (code, name, unit, search_text, version) SELECT CONCAT('BP-', seq), CONCAT('Bench part ', seq), 'pc', CONCAT('bp-', seq), 1 FROM seq_1_to_${PARTS}`,
  )
  await query(
    "INSERT INTO stock_level (store_id, part_id, quantity, average_cost_minor) SELECT 1, id, MOD(id, 60), 500 + MOD(id * 37, 9000) FROM part WHERE code LIKE 'BP-%'",
  )
  await query(`INSERT INTO stock_movement (store_id, part_id, kind, quantity, unit_cost_minor, at)
    SELECT 1, p.id, IF(MOD(s.seq, 12) = 0, 'receipt', 'issue'), IF(MOD(s.seq, 12) = 0, 20, -1 - CAST(MOD(p.id * s.seq, 5) AS SIGNED)), 1000,
      DATE_SUB((SELECT max(at) FROM event), INTERVAL CAST(s.seq * 30 AS SIGNED) - CAST(MOD(p.id, 29) AS SIGNED) DAY)
    FROM part p JOIN seq_1_to_${MOVEMENTS} s WHERE p.code LIKE 'BP-%'`)
  await query('ANALYZE TABLE part, stock_level, stock_movement')
  await connection.end()
  const took: number[] = []
  let found = 0
  for (let n = 0; n < 5; n++) {
    const began = performance.now()
    const { rows, weighed } = await desk.must(listToBuy, { siteId: 1 })
    took.push(performance.now() - began)
    if (weighed < PARTS) throw new Error(`Only ${weighed} parts were looked at.`)
    found = rows.length
  }
  const ms = median(took)
  return [
    {
      what: `what to buy over ${PARTS.toLocaleString('en')} parts with three years of movements`,
      measured: `${ms.toFixed(0)} ms at the median, ${found.toLocaleString('en')} to buy`,
      limit: `under ${MOST_BUYING_MS} ms`,
      kept: ms < MOST_BUYING_MS,
    },
  ]
}
