import type { VisitRecord } from '#server/dispatch/records'
import { and, asc, eq, isNull } from 'drizzle-orm'
import type { JobLine, JobSheet } from '#contract/field'
import { bringOf, earlierOn } from '#server/jobsheets'
import { countOf } from '#core/jobsheets'
import type { ToBring } from '#core/jobsheets'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { namePlace } from '#server/places'
import { assets, attachments, events, signatures, sites, stints } from '../tables'
import { jobDowntimes } from '#server/downtimes/records'
import { jobMeters } from '#server/meters/records'
import { jobFindings } from '#server/findings/records'
import { jobTalk } from '#server/talk/records'
import { myVisit } from './myVisit'
import { jobAlone } from './loneRows'
import { materialsOfJob } from './jobMaterials'
import { safetyOf } from './safety'
import { openMembersOf, windowOf } from '#server/orders'
import type { OrderRecord } from '#server/orders'

const EARLIER = 4

/** One job as the technician needs it; no money anywhere in it. */
export async function readJobSheet(db: Reader, who: Asker, visitId: number): Promise<Outgoing<JobSheet>> {
  const { visit, order } = await myVisit(db, who, visitId)
  const place = await namePlace(db, order.placeId)
  const bring = (await bringOf(db, [order.id])).get(order.id)!
  const [site] = await db.select({ zone: sites.zone }).from(sites).where(eq(sites.id, order.siteId))
  return {
    ...jobRow(visit, order, place, bring),
    toBring: bring,
    description: order.description,
    access: order.access,
    placeWithin: place?.within ?? null,
    placeAccess: place?.access ?? null,
    contactName: order.contactName,
    contactPhone: order.contactPhone,
    window: windowOf(order),
    noteForWorker: order.noteForWorker,
    asset: await assetOf(db, order.assetId),
    ...(await clockOf(db, visit.id)),
    ...(await materialsOfJob(db, order.id)),
    notes: await notesOf(db, order.id),
    ...(await picturesOf(db, order.id)),
    earlier: await earlierOn(db, order, EARLIER),
    outcome: { symptom: order.symptom, cause: order.cause, fix: order.fix },
    ...(await safetyOf(db, order.id, visit)),
    alone: await jobAlone(db, order.id, visit.id),
    ...(await jobFindings(db, order.id, visit.id)),
    meters: await jobMeters(db, order.assetId, visit.id),
    downtimes: await jobDowntimes(db, order.assetId, order.id),
    talk: await jobTalk(db, order.id, who.accountId),
    openMembers: (await openMembersOf(db, order.id)).map((member) => member.number),
    zone: site!.zone,
    orderKind: order.kind,
  }
}

export function jobRow(visit: VisitRecord, order: OrderRecord, place: { code: string; name: string } | null, bring: readonly ToBring[]): Outgoing<JobLine> {
  return {
    visitId: visit.id,
    number: order.number,
    summary: order.summary,
    placeCode: place?.code ?? null,
    placeName: place?.name ?? null,
    priority: order.priority,
    kind: visit.kind,
    visitState: visit.state,
    orderState: order.state,
    plannedStart: visit.plannedStart,
    plannedEnd: visit.plannedEnd,
    bring: countOf(bring),
  }
}

async function assetOf(db: Reader, assetId: number | null) {
  if (assetId === null) return null
  const [asset] = await db.select({ tag: assets.tag, name: assets.name, classCode: assets.classCode }).from(assets).where(eq(assets.id, assetId))
  return asset ?? null
}

/** Photos, and who signed. */
async function picturesOf(db: Reader, orderId: number) {
  const rows = await db
    .select({ id: attachments.id, stage: attachments.stage, name: signatures.name, at: attachments.at })
    .from(attachments)
    .leftJoin(signatures, eq(signatures.attachmentId, attachments.id))
    // What was said has its photos with it.
    .where(and(eq(attachments.orderId, orderId), isNull(attachments.messageId)))
    .orderBy(asc(attachments.id))
  return {
    photos: rows.flatMap(({ id, stage }) => (stage === 'signature' ? [] : { id, stage })),
    signatures: rows.flatMap(({ id, stage, name, at }) => (stage === 'signature' && name !== null ? { id, name, at } : [])),
  }
}

export async function clockOf(db: Reader, visitId: number) {
  const rows = await db
    .select({ id: stints.id, kind: stints.kind, startAt: stints.startAt, endAt: stints.endAt, minutes: stints.minutes })
    .from(stints)
    .where(eq(stints.visitId, visitId))
    .orderBy(asc(stints.startAt))
  const running = rows.find((stint) => stint.endAt === null)
  return { running: running ? { kind: running.kind, startAt: running.startAt } : null, stints: rows }
}

export async function notesOf(db: Reader, orderId: number, visitId?: number) {
  const rows = await db
    .select({ at: events.at, who: events.actorName, text: events.reason })
    .from(events)
    .where(and(eq(events.orderId, orderId), eq(events.kind, 'field.note'), visitId ? eq(events.visitId, visitId) : undefined))
    .orderBy(asc(events.id))
  return rows.map((row) => ({ at: row.at, who: row.who, text: row.text ?? '' }))
}
