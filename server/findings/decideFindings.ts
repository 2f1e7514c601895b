import { asc, eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/findings'
import { FINDING_SEVERITY_NAMES, MOST_AT_ONCE, mustBeOpen, orderOfFindings, priorityOf, refuseTakeUp } from '#core/findings'
import { refuse } from '#core/kit'
import { isOver } from '#core/orders'
import { canAt, command, maySee, notAllowed, notFound, recordEvent } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { beginOrder, lockOrderById } from '#server/orders'
import { payersAlong } from '#server/places'
import { assets, findings, orders, orderShares } from '../tables'
import { asRow } from './listFindings'
import { factsOfFinding, findingsWhere, whereFound } from './records'
import type { FoundRow } from './records'

/** Drafts of findings, each starting with all that was found. */
export const makeFindingOrders = command(contract.makeFindingOrders, async ({ tx, who, input, now }) => {
  const ids = input.groups.flat()
  if (new Set(ids).size < ids.length) refuse('finding_twice', 'A finding goes into one order.', 'groups')
  if (ids.length > MOST_AT_ONCE) refuse('too_many', `Decide about at most ${MOST_AT_ONCE} findings at once.`, 'groups')
  const all = await lockFindings(tx, who, ids)
  mustBeOpen(all.map(factsOfFinding))
  const made: { id: number; number: string }[] = []
  for (const ids of input.groups) made.push(await orderOf(tx, who, now, ids.map((id) => all.find((row) => row.finding.id === id)!))) // prettier-ignore
  return { orders: made }
})

async function orderOf(tx: Tx, who: Asker, now: Date, rows: readonly FoundRow[]): Promise<{ id: number; number: string }> {
  const [{ finding: first, foundOn }] = rows as readonly [FoundRow]
  if (rows.some(({ finding }) => finding.siteId !== first.siteId)) refuse('several_sites', 'Findings of several sites go into an order each.', 'groups')
  const { severity, ...about } = orderOfFindings(
    rows.map((row) => {
      const { text, severity, placeId, assetId } = row.finding
      return { text, severity, placeId, assetId, foundOn: row.foundOn.number, where: whereFound(row), path: row.place?.path ?? null }
    }),
  )
  const [asset] = about.assetId ? await tx.select({ vendorId: assets.vendorId }).from(assets).where(eq(assets.id, about.assetId)) : []
  const paying = await payersAlong(tx, rows.map(({ place }) => place?.path ?? '')) // prettier-ignore
  const order = await beginOrder(
    tx,
    who,
    now,
    {
      ...about,
      siteId: first.siteId,
      priority: priorityOf(severity),
      prioritySentence: `${FINDING_SEVERITY_NAMES[severity]}, as it was found on ${foundOn.number}.`,
      promisedFrom: rows.map(({ finding }) => finding.at).reduce((a, b) => (a < b ? a : b)),
      payerId: paying(rows[0]!.place?.path ?? '')?.id ?? (await payerOfOrder(tx, first.orderId)),
      vendorId: asset?.vendorId ?? null,
    },
    { findings: [...new Set(rows.map((row) => row.foundOn.number))].join(', ') },
  )
  await answer(tx, who, now, rows, order)
  return order
}

/** Who pays for the work on which it was found. */
async function payerOfOrder(tx: Tx, orderId: number): Promise<number> {
  const [share] = await tx.select({ payerId: orderShares.payerId }).from(orderShares).where(eq(orderShares.orderId, orderId)).orderBy(asc(orderShares.position)).limit(1) // prettier-ignore
  return share!.payerId
}

/** From now on the order answers them; each order they were found on tells so. */
async function answer(tx: Tx, who: Asker, now: Date, rows: readonly FoundRow[], order: { id: number; number: string }): Promise<void> {
  const ids = rows.map(({ finding }) => finding.id)
  await tx.update(findings).set({ followUpOrderId: order.id }).where(inArray(findings.id, ids))
  for (const orderId of new Set(rows.map(({ foundOn }) => foundOn.id))) {
    const here = rows.filter(({ foundOn }) => foundOn.id === orderId)
    await recordEvent(tx, who, now, {
      kind: 'finding.order',
      siteId: here[0]!.finding.siteId,
      orderId,
      details: { order: order.number, findings: here.length },
    })
  }
}

/** An order that is under way already puts them right, too. */
export const joinFindings = command(contract.joinFindings, async ({ tx, who, input, now, tell }) => {
  const [found] = await tx.select({ id: orders.id }).from(orders).where(eq(orders.number, input.order.trim().toUpperCase()))
  const order = found && (await lockOrderById(tx, found.id))
  if (!order || !maySee(who, order.siteId) || order.discardedAt) refuse('order_unknown', 'There is no such order at your sites.', 'order')
  if (isOver(order.state)) refuse('order_over', `${order.number} is over; it puts nothing right any more.`, 'order')
  const rows = await lockFindings(tx, who, input.ids)
  mustBeOpen(rows.map(factsOfFinding))
  if (rows.some(({ finding }) => finding.siteId !== order.siteId)) refuse('other_site', `${order.number} is of another site.`, 'order')
  await answer(tx, who, now, rows, order)
  const numbers = [...new Set(rows.map(({ foundOn }) => foundOn.number))].join(', ')
  await tell({ kind: 'finding.answer', siteId: order.siteId, orderId: order.id, details: { findings: rows.length, foundOn: numbers } })
  return { id: order.id, number: order.number }
})

export const setFindingsAside = command(contract.setFindingsAside, async ({ tx, who, input, now }) => {
  const rows = await lockFindings(tx, who, input.ids)
  mustBeOpen(rows.map(factsOfFinding))
  await tx.update(findings).set({ setAsideAt: now, setAsideBy: who.name, setAsideReason: input.reason, followUpOrderId: null }).where(inArray(findings.id, input.ids)) // prettier-ignore
  for (const row of rows) await tellOf(tx, who, now, 'finding.aside', row, input.reason)
  return { rows: (await findingsWhere(tx, inArray(findings.id, input.ids))).map(asRow) }
})

export const takeUpFinding = command(contract.takeUpFinding, async ({ tx, who, input, now }) => {
  const [row] = await lockFindings(tx, who, [input.id])
  refuseTakeUp(factsOfFinding(row!))
  await tx.update(findings).set({ setAsideAt: null, setAsideBy: null, setAsideReason: null, followUpOrderId: null }).where(eq(findings.id, input.id))
  await tellOf(tx, who, now, 'finding.takeUp', row!)
  return asRow((await findingsWhere(tx, eq(findings.id, input.id)))[0]!)
})

const tellOf = (tx: Tx, who: Asker, now: Date, kind: 'finding.aside' | 'finding.takeUp', row: FoundRow, reason: string | null = null) => {
  const { siteId, orderId, text, severity, fixedNow } = row.finding
  return recordEvent(tx, who, now, { kind, siteId, orderId, reason, details: { text, severity, fixedNow, where: whereFound(row) } })
}

/** @throws ProblemReply 404 where one is not theirs to see, 403 where it is not theirs to decide */
async function lockFindings(tx: Tx, who: Asker, ids: number[]): Promise<FoundRow[]> {
  await tx.select({ id: findings.id }).from(findings).where(inArray(findings.id, ids)).orderBy(asc(findings.id)).for('update')
  const rows = await findingsWhere(tx, inArray(findings.id, ids))
  if (rows.length < new Set(ids).size || rows.some(({ finding }) => !maySee(who, finding.siteId))) throw notFound('finding')
  if (rows.some(({ finding }) => !canAt(who, 'orders.edit', finding.siteId))) throw notAllowed()
  return rows
}
