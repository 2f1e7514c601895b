import { and, eq, gt, isNotNull, isNull, or } from 'drizzle-orm'
import * as contract from '#contract/findings'
import type { FindingRow } from '#contract/findings'
import { findingState } from '#core/findings'
import { maySee, notFound, query, withinSites } from '#server/kit'
import type { Outgoing } from '#server/kit'
import { findings, orders } from '../tables'
import { answering, factsOfFinding, findingsOf, findingsWhere, pinOf, whereFound } from './records'
import type { FoundRow } from './records'

const PAGE = 50

/** Whatever waits for an order: what nothing answers, or what an order answered that was called off. */
const waits = and(
  eq(findings.fixedNow, false),
  isNull(findings.setAsideAt),
  or(isNull(findings.followUpOrderId), isNotNull(answering.discardedAt), eq(answering.state, 'cancelled')),
)

export const listFindings = query(contract.listFindings, async ({ db, who, input }) => {
  const rows = await findingsWhere(db, and(waits, withinSites(who, findings.siteId), input.after ? gt(findings.id, input.after) : undefined), PAGE + 1)
  return { rows: rows.slice(0, PAGE).map(asRow), next: rows.length > PAGE ? rows[PAGE - 1]!.finding.id : null }
})

export const readOrderFindings = query(contract.readOrderFindings, async ({ db, who, input }) => {
  const [order] = await db.select({ siteId: orders.siteId }).from(orders).where(eq(orders.id, input.orderId))
  if (!order || !maySee(who, order.siteId)) throw notFound('order')
  const { found, answers } = await findingsOf(db, input.orderId)
  return { found: found.map(asRow), answers: answers.map(asRow) }
})

export function asRow(row: FoundRow): Outgoing<FindingRow> {
  const { finding, answeredBy, foundOn, photos } = row
  const { id, text, severity, placeId, assetId, at, foundBy, setAsideAt, setAsideBy, setAsideReason } = finding
  const state = findingState(factsOfFinding(row))
  return {
    ...{ id, text, severity, placeId, assetId, at, who: foundBy, foundOn, photos, state },
    where: whereFound(row),
    pin: pinOf(finding),
    answeredBy: answeredBy && state !== 'open' ? { id: answeredBy.id, number: answeredBy.number, state: answeredBy.state } : null,
    setAside: setAsideAt ? { by: setAsideBy!, at: setAsideAt, reason: setAsideReason! } : null,
  }
}
