import { and, desc, eq, inArray, isNull, or } from 'drizzle-orm'
import type { Response } from 'express'
import * as contract from '#contract/documents'
import type { SharedDocument } from '#contract/documents'
import { isInForce } from '#core/documents'
import type { Audience } from '#core/documents'
import type { ListKind } from '#core/lists'
import { openLink } from '#server/approvals'
import { myVisit } from '#server/field'
import { delivery, notFound, query } from '#server/kit'
import type { Reader } from '#server/kit'
import { requestByLink } from '#server/requests'
import { openPass } from '#server/vendors'
import { assets, documentFiles, documents, places, requestOrders } from '../tables'
import { sendDocument } from './sendDocument'
import { todayAt } from './today'

/** What somebody outside the desk is looking at. */
interface LookedAt {
  siteId: number
  orderId?: number
  requestId?: number
  assetId: number | null
  placeId: number | null
  vendorId?: number | null
}

interface Shared extends SharedDocument {
  file: typeof documentFiles.$inferSelect
}

/** The documents these may see of what they look at, of its asset and what that is part of, and of its place and those above: newest versions in force. */
async function sharedWith(db: Reader, audience: Audience, at: LookedAt, now: Date): Promise<Shared[]> {
  const [[asset], [place], linked] = await Promise.all([
    at.assetId ? db.select({ path: assets.path }).from(assets).where(eq(assets.id, at.assetId)) : [],
    at.placeId ? db.select({ path: places.path }).from(places).where(eq(places.id, at.placeId)) : [],
    at.orderId ? db.select({ id: requestOrders.requestId }).from(requestOrders).where(eq(requestOrders.orderId, at.orderId)) : [],
  ])
  const ids = (path: string | undefined) => (path ?? '').split('/').filter(Boolean).map(Number)
  const of = (on: ListKind, all: (number | null | undefined)[]) => {
    const known = all.filter((id) => typeof id === 'number')
    return known.length ? and(eq(documents.on, on), inArray(documents.recordId, known)) : undefined
  }
  // What was sent with a request stays with who sent it and the desk.
  const around = or(
    of('orders', [at.orderId]),
    of('requests', [at.requestId, ...(audience === 'reporter' ? [] : linked.map(({ id }) => id))]),
    of('assets', ids(asset?.path)),
    of('places', ids(place?.path)),
    of('vendors', [at.vendorId]),
  )
  if (!around) return []
  const today = await todayAt(db, at.siteId, now)
  const rows = (
    await db
      .select()
      .from(documents)
      .where(and(around, isNull(documents.retiredAt)))
  ).filter((row) => row.audience.includes(audience) && isInForce(row, today))
  if (!rows.length) return []
  const files = await db
    .select()
    .from(documentFiles)
    .where(
      inArray(
        documentFiles.documentId,
        rows.map(({ id }) => id),
      ),
    )
    .orderBy(desc(documentFiles.number))
  return rows
    .sort((a, b) => a.title.localeCompare(b.title))
    .map(({ id, kind, title }) => {
      const file = files.find(({ documentId }) => documentId === id)!
      return { fileId: file.id, kind, title, name: file.name, shows: file.shows, bytes: file.bytes, file }
    })
}

const told = (rows: Shared[]): { rows: SharedDocument[] } => ({ rows: rows.map(({ file: _, ...row }) => row) })

async function sendShared(db: Reader, response: Response, rows: Shared[], { fileId, small }: { fileId: number; small?: boolean }): Promise<void> {
  const found = rows.find((row) => row.fileId === fileId)
  if (!found) throw notFound('document')
  await sendDocument(db, response, found.file, small)
}

const ofOrder = (order: { id: number; siteId: number; assetId: number | null; placeId: number | null }): LookedAt => ({ ...order, orderId: order.id })

async function onVisit(db: Reader, who: Parameters<typeof myVisit>[1], visitId: number, now: Date) {
  const { order } = await myVisit(db, who, visitId)
  return sharedWith(db, 'technician', ofOrder(order), now)
}
async function byPass(db: Reader, token: string, now: Date) {
  const { order, vendor } = await openPass(db, token, now)
  return sharedWith(db, 'vendor', { ...ofOrder(order), vendorId: vendor.id }, now)
}
async function byApproval(db: Reader, token: string, now: Date) {
  const { order } = await openLink(db, token, now)
  return sharedWith(db, 'payer', ofOrder(order), now)
}
/** Who follows somebody else’s request sees the documents of the machine and the room, not those of the request. */
async function byTracking(db: Reader, token: string, now: Date) {
  const { request, follower } = await requestByLink(db, token, now)
  const { siteId, assetId, placeId } = request
  return sharedWith(db, 'reporter', { siteId, assetId, placeId, ...(follower ? {} : { requestId: request.id }) }, now)
}

export const sharedRoutes = [
  query(contract.listJobDocuments, async ({ db, who, input, now }) => told(await onVisit(db, who, input.visitId, now))),
  delivery(contract.readJobDocument, async ({ db, who, input, now, response }) => sendShared(db, response, await onVisit(db, who, input.visitId, now), input)),
  query(contract.listPassDocuments, async ({ db, input, now }) => told(await byPass(db, input.token, now))),
  delivery(contract.readPassDocument, async ({ db, input, now, response }) => sendShared(db, response, await byPass(db, input.token, now), input)),
  query(contract.listApprovalDocuments, async ({ db, input, now }) => told(await byApproval(db, input.token, now))),
  delivery(contract.readApprovalDocument, async ({ db, input, now, response }) => sendShared(db, response, await byApproval(db, input.token, now), input)),
  query(contract.listTrackedDocuments, async ({ db, input, now }) => told(await byTracking(db, input.token, now))),
  delivery(contract.readTrackedDocument, async ({ db, input, now, response }) => sendShared(db, response, await byTracking(db, input.token, now), input)),
]
