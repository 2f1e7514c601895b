import Big from 'big.js'
import { and, asc, eq, isNull } from 'drizzle-orm'
import * as contract from '#contract/stock'
import type { CountLine, CountResult } from '#contract/stock'
import { canAt, command, delivery, inThread, maySee, notAllowed, notFound, query } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { sendDownload } from '#server/orders'
import { parts, stockLevels, stores } from '../tables'
import { goOn, lockWaiting } from './arrivals'
import type { CountPaper } from './countSheetPdf.worker'
import { lockLevel, plain } from './levels'
import { correct, myStore } from './moveStock'

async function linesIn(db: Reader, who: Asker, storeId: number): Promise<{ store: typeof stores.$inferSelect; lines: CountLine[] }> {
  const [store] = await db
    .select()
    .from(stores)
    .where(and(eq(stores.id, storeId), isNull(stores.retiredAt)))
  if (!store || !maySee(who, store.siteId)) throw notFound('store')
  const rows = await db
    .select({ partId: parts.id, code: parts.code, name: parts.name, unit: parts.unit, onHand: stockLevels.quantity })
    .from(stockLevels)
    .innerJoin(parts, eq(parts.id, stockLevels.partId))
    .where(and(eq(stockLevels.storeId, storeId), isNull(parts.retiredAt)))
    .orderBy(asc(parts.code))
  return { store, lines: rows.map((row) => ({ ...row, onHand: plain(row.onHand) })) }
}

export const readCountSheet = query(contract.readCountSheet, async ({ db, who, input }) => {
  const { store, lines } = await linesIn(db, who, input.storeId)
  return { store: store.name, lines, mayEnter: canAt(who, 'registers.edit', store.siteId) }
})

const draw = inThread<CountPaper, Uint8Array>('countSheetPdf.worker')

/** What should be there is not told on paper, so that what is there is counted. */
export const printCountSheet = delivery(contract.printCountSheet, async ({ db, who, input, now, response }) => {
  const { store, lines } = await linesIn(db, who, input.storeId)
  const pdf = await draw({ store: store.name, on: now.toISOString().slice(0, 10), lines: lines.map(({ code, name, unit }) => ({ code, name, unit })) })
  sendDownload(response, `Count of ${store.name}.pdf`)
  response.type('application/pdf').end(Buffer.from(pdf))
})

export const enterCount = command(contract.enterCount, async ({ tx, who, input, now, tell }) => {
  const { storeId, reason, lines } = input
  const store = await myStore(tx, who, storeId, 'storeId')
  if (!canAt(who, 'registers.edit', store.siteId)) throw notAllowed()
  const known = new Map((await linesIn(tx, who, storeId)).lines.map((line) => [line.partId, line]))
  const inOrder = [...lines].sort((a, b) => a.partId - b.partId)
  const waiting = await lockWaiting(
    tx,
    store.siteId,
    inOrder.map(({ partId }) => partId),
  )
  const results = new Map<number, CountResult>()
  for (const { partId, found, expected } of inOrder) {
    const line = known.get(partId)
    const as = (standing: CountResult['standing'], sentence: string) => results.set(partId, { partId, standing, sentence })
    if (!line) {
      as('moved', 'It is not kept in this store. Receive or transfer it instead.')
      continue
    }
    const { onHand } = await lockLevel(tx, storeId, partId)
    if (!new Big(onHand).eq(expected))
      as(
        'moved',
        `${plain(expected)} ${line.unit} should have been there when the sheet was read, and ${plain(onHand)} now: it was moved meanwhile. Count it again.`,
      )
    else if (await correct({ tx, at: now, by: who.accountId, partId, reason }, storeId, found))
      as('corrected', `${plain(onHand)} becomes ${plain(found)} ${line.unit}.`)
    else as('same', 'As it should be.')
  }
  const rows = lines.map(({ partId }) => results.get(partId)!)
  const corrected = rows.filter(({ standing }) => standing === 'corrected')
  await tell({
    kind: 'stock.count',
    siteId: store.siteId,
    register: 'stores',
    recordId: storeId,
    reason,
    details: { store: store.name, counted: rows.filter(({ standing }) => standing !== 'moved').length, corrected: corrected.length },
  })
  await goOn(
    { tx, who, now, tell },
    waiting,
    corrected.map(({ partId }) => partId),
  )
  return { rows }
})
