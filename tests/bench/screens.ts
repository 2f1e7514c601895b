import { createPool } from 'mysql2/promise'
import type { Pool, RowDataPacket } from 'mysql2/promise'
import { readFigures, readFlow } from '#contract/insight'
import { listOrderLines, listRecordLines, listRequestLines } from '#contract/lists'
import { listOrders, readOrder } from '#contract/orders'
import { readAccounts } from '#contract/people'
import { listRequests, readRequest } from '#contract/requests'
import { readRuleBook } from '#contract/setup'
import { Client } from '../kit'
import type { House, Running } from '../kit'
import { fillWithOrders } from './big'
import { median } from './table'
import type { Measure } from './table'

const ORDERS = 1_000_000
const ROUNDS = 40
const MOST_STATEMENTS_OF_A_SHEET = 15
const MOST_ROUND_TRIPS = 12

/** How many statements each main view reads, and how long the Sheet of an order takes beside one round trip of the driver, over a million orders. */
export async function measureScreens(house: House, server: Running): Promise<Measure[]> {
  await fillWithOrders(house, ORDERS)
  const pool = createPool({ uri: house.databaseUrl, timezone: 'Z', connectionLimit: 1 })
  const desk = await new Client(server.url).signIn('maren.quill')
  const admin = await new Client(server.url).signIn('wendeline.stroud')
  const [[order], [request]] = await Promise.all([
    house.rows<{ id: number }>(
      "SELECT o.id FROM work_order o JOIN stint s ON s.order_id = o.id WHERE o.state <> 'draft' GROUP BY o.id ORDER BY COUNT(*) DESC LIMIT 1",
    ),
    house.rows<{ id: number }>('SELECT request_id AS id FROM request_order ORDER BY request_id DESC LIMIT 1'),
  ])
  const screens: Record<string, () => Promise<unknown>> = {
    'the Sheet of an order': () => desk.must(readOrder, { id: order!.id }),
    'the Sheet of a request': () => desk.must(readRequest, { id: request!.id }),
    'a queue of orders': () => desk.must(listOrders, { station: 'dispatch' }),
    'a queue of requests': () => desk.must(listRequests, { station: 'triage' }),
    'the Flow': () => desk.must(readFlow, {}),
    'a list of orders': () => desk.must(listOrderLines, { ask: 'state=closed' }),
    'a list of requests': () => desk.must(listRequestLines, {}),
    figures: () => desk.must(readFigures, {}),
    'a register': () => desk.must(listRecordLines, { register: 'assets' }),
    'people in Setup': () => admin.must(readAccounts, {}),
    'rules in Setup': () => admin.must(readRuleBook, { siteId: 1 }),
  }
  const measures: Measure[] = []
  for (const [name, read] of Object.entries(screens)) measures.push(await countStatements(pool, name, read))
  measures.push(await timeSheet(pool, `${server.url}/api/orders/${order!.id}`, desk.session))
  await pool.end()
  return measures
}

/** What the database was asked meanwhile, less what it is asked by itself. */
async function countStatements(pool: Pool, name: string, read: () => Promise<unknown>): Promise<Measure> {
  await read()
  const idle = await statementsDuring(pool, () => new Promise((resolve) => setTimeout(resolve, 2_000)))
  const busy = await statementsDuring(pool, async () => {
    for (let n = 0; n < ROUNDS; n++) await read()
  })
  const each = (busy.count - (idle.count / idle.ms) * busy.ms) / ROUNDS
  const sheet = name === 'the Sheet of an order'
  return {
    what: `statements of ${name}`,
    measured: each.toFixed(1),
    limit: sheet ? `at most ${MOST_STATEMENTS_OF_A_SHEET}` : 'bounded, whatever there is',
    kept: !sheet || Math.round(each) <= MOST_STATEMENTS_OF_A_SHEET,
  }
}

async function statementsDuring(pool: Pool, work: () => Promise<unknown>): Promise<{ count: number; ms: number }> {
  const asked = async () => Number((await pool.query<RowDataPacket[]>("SHOW GLOBAL STATUS LIKE 'Com_select'"))[0][0]!.Value)
  const [before, began] = [await asked(), performance.now()]
  await work()
  return { count: (await asked()) - before, ms: performance.now() - began }
}

/** The whole answer over HTTP, beside reading the row of the order by its key through the driver, taking turns. */
async function timeSheet(pool: Pool, address: string, Cookie: string): Promise<Measure> {
  const id = address.split('/').at(-1)
  const [sheets, trips]: [number[], number[]] = [[], []]
  const timed = async (into: number[], work: () => Promise<unknown>) => {
    const began = performance.now()
    await work()
    into.push(performance.now() - began)
  }
  for (let n = 0; n < ROUNDS * 3; n++) {
    await timed(trips, () => pool.query('SELECT * FROM work_order WHERE id = ?', [id]))
    // By itself: the client of the tests holds every answer against its description as well.
    await timed(sheets, async () => void (await (await fetch(address, { headers: { Cookie } })).json()))
  }
  const [sheet, trip] = [median(sheets), median(trips)]
  return {
    what: `the Sheet of an order over ${ORDERS.toLocaleString('en')} orders`,
    measured: `${sheet.toFixed(1)} ms, ${(sheet / trip).toFixed(1)} x one round trip (${trip.toFixed(2)} ms)`,
    limit: `at most ${MOST_ROUND_TRIPS} x`,
    kept: sheet <= MOST_ROUND_TRIPS * trip,
  }
}
