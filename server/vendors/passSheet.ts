import { and, asc, eq, gt, inArray, isNull, ne } from 'drizzle-orm'
import type { PassSheet } from '#contract/vendors'
import { LIVE_VISIT_STATES } from '#core/dispatch'
import { isFinished, isOver, SEEN_IN_FIELD } from '#core/orders'
import { jobFindings } from '#server/findings/records'
import { clockOf, jobAlone, notesOf, safetyOf } from '#server/field'
import { jobDowntimes } from '#server/downtimes/records'
import type { Outgoing, Reader, Service } from '#server/kit'
import { stepsOnSite } from '#server/methods'
import { jobMeters } from '#server/meters/records'
import { rulesOf, windowOf } from '#server/orders'
import { namePlace } from '#server/places'
import { passTalk } from '#server/talk/records'
import { assets, attachments, findings, orders, places, quotes, signatures, vendorBillLines, vendorBills, vendorParts, vendorPasses, visits } from '../tables'
import { openPass } from './openPass'
import type { OpenPass } from './openPass'

const MOST_OTHERS = 20

/** What the vendor sees: this job, what they did and said on it, and their other jobs by links of their own. */
export async function readPassSheet(db: Reader, service: Service, token: string, now: Date): Promise<Outgoing<PassSheet>> {
  const open = await openPass(db, token, now)
  const { pass, visit, order, vendor, site } = open
  const place = await namePlace(db, order.placeId)
  const notes = await notesOf(db, order.id, visit.id)
  return {
    vendor: vendor.name,
    site: site.name,
    deskPhone: site.deskPhone,
    number: order.number,
    summary: order.summary,
    description: order.description,
    place: place?.name ?? null,
    placeWithin: place?.within ?? null,
    placeAccess: place?.access ?? null,
    access: order.access,
    contactName: order.contactName,
    contactPhone: order.contactPhone,
    window: windowOf(order),
    noteForWorker: order.noteForWorker,
    asset: await assetOf(db, order.assetId),
    plannedStart: visit.plannedStart,
    plannedEnd: visit.plannedEnd,
    visitState: visit.state,
    answer: visit.answer,
    answerNote: visit.answerNote,
    proposed: visit.proposedStart && visit.proposedEnd ? { start: visit.proposedStart, end: visit.proposedEnd } : null,
    orderState: order.state,
    ...(await clockOf(db, visit.id)),
    notes: notes.map(({ at, text }) => ({ at, text })),
    ...(await filesOf(db, visit.id)),
    ...(await safetyOf(db, order.id, visit)),
    ...(await findingsOf(db, order.id, visit.id)),
    steps: await stepsOnSite(db, order.id),
    meters: await jobMeters(db, order.assetId, visit.id),
    downtimes: (await jobDowntimes(db, order.assetId, order.id)).map(({ who: _who, ...one }) => one),
    alone: await jobAlone(db, order.id, visit.id),
    there: visit.thereName === null ? null : { name: visit.thereName, phone: visit.therePhone },
    brought: await db
      .select({ id: vendorParts.id, name: vendorParts.name, quantity: vendorParts.quantity, unit: vendorParts.unit })
      .from(vendorParts)
      .where(eq(vendorParts.visitId, visit.id))
      .orderBy(asc(vendorParts.id)),
    price: await priceOf(db, open),
    mayPrice: visit.state === 'planned' && !isFinished(order.state) && !isOver(order.state),
    talk: await passTalk(db, order.id, visit.id),
    others: await othersOf(db, service, open, now),
    bill: await billOf(db, visit.id),
    outcome: { symptom: order.symptom, cause: order.cause, fix: order.fix },
    expiresAt: pass.expiresAt,
    zone: site.zone,
    currency: site.currency,
    writing: (await rulesOf(db, site.id)).writing,
  }
}

async function assetOf(db: Reader, assetId: number | null): Promise<PassSheet['asset']> {
  if (assetId === null) return null
  const [asset] = await db.select({ tag: assets.tag, name: assets.name, classCode: assets.classCode }).from(assets).where(eq(assets.id, assetId))
  return asset ?? null
}

/** What they sent, but for what stands with a message, a finding or a bill. */
async function filesOf(db: Reader, visitId: number) {
  const rows = await db
    .select({
      id: attachments.id,
      stage: attachments.stage,
      kind: attachments.kind,
      name: attachments.name,
      bytes: attachments.bytes,
      by: signatures.name,
      at: signatures.at,
    })
    .from(attachments)
    .leftJoin(signatures, eq(signatures.attachmentId, attachments.id))
    .leftJoin(vendorBills, eq(vendorBills.attachmentId, attachments.id))
    .where(and(eq(attachments.visitId, visitId), isNull(attachments.messageId), isNull(attachments.claimHash), isNull(vendorBills.id)))
    .orderBy(asc(attachments.id))
  return {
    photos: rows.flatMap(({ id, stage, kind }) => (stage === 'signature' || kind === 'document' ? [] : [{ id, stage }])),
    signatures: rows.flatMap(({ id, stage, by, at }) => (stage === 'signature' && by !== null && at ? [{ id, name: by, at }] : [])),
    files: rows.flatMap(({ id, kind, name, bytes }) => (kind === 'document' ? [{ id, name, bytes }] : [])),
  }
}

/** What they found themselves, and what the job is to put right. */
async function findingsOf(db: Reader, orderId: number, visitId: number) {
  const all = await jobFindings(db, orderId, visitId)
  const mine = await db.select({ id: findings.id }).from(findings).where(eq(findings.visitId, visitId))
  // Where a pin stands is on plans the pass does not show.
  const unpinned = (rows: typeof all.findings) => rows.map((row) => ({ ...row, pin: null }))
  return { findings: unpinned(all.findings.filter(({ id }) => mine.some((one) => one.id === id))), answers: unpinned(all.answers) }
}

async function priceOf(db: Reader, { order, vendor }: OpenPass): Promise<PassSheet['price']> {
  const [row] = await db
    .select({ netMinor: quotes.netMinor, taxBp: quotes.taxBp, note: quotes.answer, state: quotes.state })
    .from(quotes)
    .where(and(eq(quotes.orderId, order.id), eq(quotes.vendorId, vendor.id), inArray(quotes.state, ['priced', 'taken'])))
  return row?.netMinor === null || row?.netMinor === undefined ? null : { ...row, netMinor: row.netMinor, taxBp: row.taxBp ?? 0 }
}

/** Their other jobs whose links work, each by a link of its own. */
async function othersOf(db: Reader, service: Service, { vendor, visit }: OpenPass, now: Date): Promise<Outgoing<PassSheet>['others']> {
  const rows = await db
    .select({
      number: orders.number,
      summary: orders.summary,
      place: places.name,
      plannedStart: visits.plannedStart,
      state: visits.state,
      nonce: vendorPasses.nonce,
    })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .innerJoin(vendorPasses, eq(vendorPasses.visitId, visits.id))
    .leftJoin(places, eq(places.id, orders.placeId))
    .where(
      and(
        eq(visits.vendorId, vendor.id),
        ne(visits.id, visit.id),
        inArray(visits.state, LIVE_VISIT_STATES),
        inArray(orders.state, SEEN_IN_FIELD),
        isNull(orders.discardedAt),
        isNull(vendorPasses.revokedAt),
        gt(vendorPasses.expiresAt, now),
      ),
    )
    .orderBy(asc(visits.plannedStart))
    .limit(MOST_OTHERS)
  return rows.map(({ nonce, ...row }) => ({ ...row, link: `/p/${service.links.again('pass', nonce)}` }))
}

async function billOf(db: Reader, visitId: number): Promise<PassSheet['bill']> {
  const [bill] = await db.select().from(vendorBills).where(eq(vendorBills.visitId, visitId))
  if (!bill) return null
  const lines = await db
    .select({
      description: vendorBillLines.description,
      quantity: vendorBillLines.quantity,
      unitPriceMinor: vendorBillLines.unitPriceMinor,
      amountMinor: vendorBillLines.amountMinor,
    })
    .from(vendorBillLines)
    .where(eq(vendorBillLines.billId, bill.id))
    .orderBy(asc(vendorBillLines.id))
  return { number: bill.number, taxBp: bill.taxBp, lines, netMinor: lines.reduce((sum, line) => sum + line.amountMinor, 0), file: bill.attachmentId !== null }
}
