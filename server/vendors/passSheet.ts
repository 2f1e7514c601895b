import { asc, eq } from 'drizzle-orm'
import type { PassSheet } from '#contract/vendors'
import type { Outgoing, Reader } from '#server/kit'
import { rulesOf, windowOf } from '#server/orders'
import { clockOf, notesOf } from '#server/field'
import { nameAsset, namePlace } from '#server/places'
import { attachments, vendorBillLines, vendorBills } from '../tables'
import { openPass } from './openPass'

/** What the vendor sees: this job, their own time, notes, photos and bill. */
export async function readPassSheet(db: Reader, token: string, now: Date): Promise<Outgoing<PassSheet>> {
  const { pass, visit, order, vendor, site } = await openPass(db, token, now)
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
    asset: await nameAsset(db, order.assetId),
    plannedStart: visit.plannedStart,
    plannedEnd: visit.plannedEnd,
    visitState: visit.state,
    answer: visit.answer,
    answerNote: visit.answerNote,
    proposed: visit.proposedStart && visit.proposedEnd ? { start: visit.proposedStart, end: visit.proposedEnd } : null,
    orderState: order.state,
    ...(await clockOf(db, visit.id)),
    notes: notes.map(({ at, text }) => ({ at, text })),
    photos: await db.select({ id: attachments.id }).from(attachments).where(eq(attachments.visitId, visit.id)),
    bill: await billOf(db, visit.id),
    outcome: { symptom: order.symptom, cause: order.cause, fix: order.fix },
    expiresAt: pass.expiresAt,
    zone: site.zone,
    currency: site.currency,
    writing: (await rulesOf(db, site.id)).writing,
  }
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
  return { number: bill.number, taxBp: bill.taxBp, lines, netMinor: lines.reduce((sum, line) => sum + line.amountMinor, 0) }
}
