import { and, asc, eq, inArray, isNull, like, notInArray, sql } from 'drizzle-orm'
import type { Selection, ToMake } from '#contract/templates'
import { Refusal, refuse } from '#core/kit'
import { FINISHED_STATES, OVER_STATES } from '#core/orders'
import { codesIn, doubledBy, filledSummary, MOST_MADE } from '#core/templates'
import type { OpenOrder } from '#core/templates'
import type { Reader } from '#server/kit'
import { payersAlong, payersNamed } from '#server/places'
import type { Paying } from '#server/places'
import { assets, batchOrders, orderBatches, orderMethods, orders, orderTemplates, places } from '../tables'

type TemplateRecord = typeof orderTemplates.$inferSelect

/** A place or asset an order is made for, with who would pay for it. */
export interface Target extends ToMake {
  placeId: number
  assetId: number | null
  vendorId: number | null
  payerId: number | null
}

interface Found {
  placeId: number
  assetId: number | null
  code: string
  name: string
  place: string | null
  path: string
  vendorId: number | null
}

/** Everything of a selection, each once, in the order of its code. @throws Refusal when there is nothing, or too much */
export async function targetsOf(db: Reader, template: TemplateRecord, selection: Selection): Promise<{ targets: Target[]; unknown: string[] }> {
  const { found, unknown } = await foundBy(db, template.siteId, selection)
  if (!found.length && !unknown.length) refuse('nothing_chosen', 'Nothing in use is chosen: choose a branch, mark rows, or hand over codes.', 'placeIds')
  if (found.length > MOST_MADE)
    throw new Refusal([{ code: 'too_many', sentence: `${found.length} are chosen. Make at most ${MOST_MADE} orders in one act.`, field: 'placeIds' }])
  const [paying, open] = await Promise.all([payersFor(db, template, found), openAt(db, found)])
  const targets = found.map((one): Target => {
    const summary = filledSummary(template.summary, one)
    const payer = paying(one.path)
    const here = open(one)
    const doubled = doubledBy({ templateId: template.id, methodId: template.methodId, summary }, here)
    return {
      key: one.assetId === null ? `p${one.placeId}` : `a${one.assetId}`,
      code: one.code,
      name: one.name,
      place: one.place,
      summary,
      payer: payer?.name ?? null,
      payerId: payer?.id ?? null,
      doubled: doubled ? { id: doubled.id, number: doubled.number, summary: doubled.summary } : null,
      problem: payer
        ? null
        : template.payerRule === 'fixed'
          ? 'Its payer is not in use any more: choose another in the template.'
          : 'Nobody pays for this place yet: say who on its Portrait.',
      placeId: one.placeId,
      assetId: one.assetId,
      vendorId: one.vendorId,
    }
  })
  return { targets: targets.sort((a, b) => a.code.localeCompare(b.code, 'en', { numeric: true })), unknown }
}

const PLACE = { placeId: places.id, code: places.code, name: places.name, path: places.path }
const ASSET = { assetId: assets.id, code: assets.tag, name: assets.name, placeId: places.id, place: places.code, path: places.path, vendorId: assets.vendorId }

async function foundBy(db: Reader, siteId: number, { placeIds = [], assetIds = [], within, codes }: Selection): Promise<{ found: Found[]; unknown: string[] }> {
  const asked = codes ? codesIn(codes) : []
  if (asked.length > MOST_MADE) throw new Refusal([{ code: 'too_many', sentence: `Hand over at most ${MOST_MADE} codes at a time.`, field: 'codes' }])
  const inPlaces = (where: ReturnType<typeof and>) =>
    db
      .select(PLACE)
      .from(places)
      .where(and(eq(places.siteId, siteId), isNull(places.retiredAt), where))
      .orderBy(asc(places.code))
      .limit(MOST_MADE + 1)
  const inAssets = (where: ReturnType<typeof and>) =>
    db
      .select(ASSET)
      .from(assets)
      .innerJoin(places, eq(places.id, assets.placeId))
      .where(and(eq(assets.siteId, siteId), isNull(assets.retiredAt), where))
      .orderBy(asc(assets.tag))
      .limit(MOST_MADE + 1)
  const [root] = within
    ? await db
        .select({ path: places.path })
        .from(places)
        .where(and(eq(places.id, within.placeId), eq(places.siteId, siteId)))
    : []
  if (within && !root) refuse('place_unknown', 'Choose a place of this site.', 'within')
  const under = root ? like(places.path, `${root.path}%`) : undefined
  const [marked, markedAssets, branch, branchAssets, coded, codedAssets] = await Promise.all([
    placeIds.length ? inPlaces(inArray(places.id, placeIds)) : [],
    assetIds.length ? inAssets(inArray(assets.id, assetIds)) : [],
    within?.what === 'spaces' ? inPlaces(and(under, eq(places.kind, 'space'))) : [],
    within?.what === 'assets' ? inAssets(and(under, within.classCode ? eq(assets.classCode, within.classCode) : undefined)) : [],
    asked.length ? inPlaces(inArray(places.code, asked)) : [],
    asked.length ? inAssets(inArray(assets.tag, asked)) : [],
  ])
  const known = new Set([...coded, ...codedAssets].map(({ code }) => code.toLowerCase()))
  const all = new Map<string, Found>()
  for (const one of [...marked, ...branch, ...coded]) all.set(`p${one.placeId}`, { ...one, assetId: null, place: null, vendorId: null })
  for (const one of [...markedAssets, ...branchAssets, ...codedAssets]) all.set(`a${one.assetId}`, one)
  return { found: [...all.values()], unknown: asked.filter((code) => !known.has(code.toLowerCase())) }
}

/** Who pays, by the path of a place: the payer of the nearest place that has one, or the one the template names. */
async function payersFor(db: Reader, template: TemplateRecord, found: readonly Found[]): Promise<(path: string) => Paying | null> {
  if (template.payerRule !== 'fixed') return payersAlong(db, found.map(({ path }) => path)) // prettier-ignore
  const payer = (await payersNamed(db))(template.payerId)
  return () => payer
}

/** What is open at each place, and on each asset. */
async function openAt(db: Reader, found: readonly Found[]): Promise<(one: Found) => OpenOrder[]> {
  const assetIds = found.flatMap(({ assetId }) => assetId ?? [])
  const placeIds = found.filter(({ assetId }) => assetId === null).map(({ placeId }) => placeId)
  const live = and(isNull(orders.discardedAt), notInArray(orders.state, [...FINISHED_STATES, ...OVER_STATES]))
  const columns = { id: orders.id, number: orders.number, summary: orders.summary, placeId: orders.placeId, assetId: orders.assetId }
  const [onAssets, inPlaces] = await Promise.all([
    assetIds.length
      ? db
          .select(columns)
          .from(orders)
          .where(and(inArray(orders.assetId, assetIds), live))
      : [],
    placeIds.length
      ? db
          .select(columns)
          .from(orders)
          .where(and(inArray(orders.placeId, placeIds), isNull(orders.assetId), live))
      : [],
  ])
  const ids = [...onAssets, ...inPlaces].map(({ id }) => id)
  const [byMethod, byTemplate] = ids.length
    ? await Promise.all([
        db.select({ orderId: orderMethods.orderId, id: orderMethods.methodId }).from(orderMethods).where(inArray(orderMethods.orderId, ids)),
        db
          .select({ orderId: batchOrders.orderId, id: sql<number>`${orderBatches.templateId}` })
          .from(batchOrders)
          .innerJoin(orderBatches, eq(orderBatches.id, batchOrders.batchId))
          .where(inArray(batchOrders.orderId, ids)),
      ])
    : [[], []]
  const of = (rows: { orderId: number; id: number }[], orderId: number) => rows.filter((row) => row.orderId === orderId).map(({ id }) => Number(id))
  const facts = (rows: typeof onAssets) => rows.map((row) => ({ ...row, methodIds: of(byMethod, row.id), templateIds: of(byTemplate, row.id) }))
  const grouped = (rows: ReturnType<typeof facts>, key: 'assetId' | 'placeId') => {
    const by = new Map<number, OpenOrder[]>()
    for (const row of rows) by.set(row[key]!, [...(by.get(row[key]!) ?? []), row])
    return by
  }
  const [byAsset, byPlace] = [grouped(facts(onAssets), 'assetId'), grouped(facts(inPlaces), 'placeId')]
  return ({ assetId, placeId }) => (assetId === null ? byPlace.get(placeId) : byAsset.get(assetId)) ?? []
}
