import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import * as contract from '#contract/spots'
import { LIVE_VISIT_STATES } from '#core/dispatch'
import { SEEN_IN_FIELD } from '#core/orders'
import { earlierOn } from '#server/jobsheets'
import { query } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { rulesOf } from '#server/orders'
import { findSpots, namePlace, payersAlong } from '#server/places'
import { knownHere, workHere } from '#server/requests'
import { orders, visits } from '../tables'
import { knownSpot, siteOf } from './where'
import type { Spot } from './where'

const [MOST_KNOWN, MOST_EARLIER] = [20, 8]

export const findSpot = query(contract.findSpot, async ({ db, who, input }) => ({ rows: await findSpots(db, (await siteOf(db, who)).id, input.q) }))

export const readSpot = query(contract.readSpot, async ({ db, who, input, now, service }) => {
  const site = await siteOf(db, who)
  const spot = await knownSpot(db, site, input)
  const { place, asset } = spot
  const here = { placeId: place.id, assetId: asset?.id ?? null }
  const [named, known, mine, work, earlier, { planning }, payerAlong] = await Promise.all([
    namePlace(db, place.id),
    knownHere(db, service, site, { ...here, words: '', most: MOST_KNOWN }, now),
    mineHere(db, who, here),
    workHere(db, site, here, now),
    earlierOn(db, { id: 0, ...here }, MOST_EARLIER),
    rulesOf(db, site.id),
    payersAlong(db, [place.path]),
  ])
  return {
    ...here,
    code: asset?.tag ?? place.code,
    name: asset?.name ?? place.name,
    within: [asset && `${place.code} ${place.name}`, named?.within].filter(Boolean).join(', '),
    access: named?.access ?? null,
    asset: asset && { tag: asset.tag, name: asset.name, classCode: asset.classCode, maker: asset.maker, model: asset.model, serial: asset.serial },
    known,
    mine: mine.map(({ orderId: _, ...line }) => line),
    planned: work.filter(({ id }) => !mine.some(({ orderId }) => orderId === id)).map(({ kind, progress }) => ({ kind, progress })),
    earlier,
    whyNotStart: whyNotStart(spot, planning.onSpotMinor, payerAlong(place.path)?.id ?? null),
  }
})

/** In words; null where whoever stands there may begin. */
export function whyNotStart({ asset }: Spot, onSpotMinor: number | null, placePayerId: number | null): string | null {
  if (onSpotMinor === null) return 'Nothing is started on the spot at this site: report it, and the desk sends somebody.'
  return (asset?.payerId ?? placePayerId) === null ? 'Nobody is known to pay for work here: report it, and the desk finds out.' : null
}

const mineHere = (db: Reader, who: Asker, { placeId, assetId }: { placeId: number; assetId: number | null }) =>
  db
    .select({
      orderId: orders.id,
      visitId: visits.id,
      number: orders.number,
      summary: orders.summary,
      plannedStart: visits.plannedStart,
      state: visits.state,
    })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .where(
      and(
        eq(visits.technicianId, who.technicianId ?? -1),
        inArray(visits.state, LIVE_VISIT_STATES),
        inArray(orders.state, SEEN_IN_FIELD),
        isNull(orders.discardedAt),
        assetId === null ? eq(orders.placeId, placeId) : eq(orders.assetId, assetId),
      ),
    )
    .orderBy(asc(visits.plannedStart))
