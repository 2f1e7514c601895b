import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/places'
import { notFound, query, withinSites } from '#server/kit'
import { assets, payers, people, places, vendors } from '../tables'

export default query(contract.readAssetSays, async ({ db, who, input, now }) => {
  const [row] = await db
    .select({ asset: assets, place: places, payer: payers, vendor: vendors, contact: people })
    .from(assets)
    .innerJoin(places, eq(places.id, assets.placeId))
    .leftJoin(payers, eq(payers.id, assets.payerId))
    .leftJoin(vendors, eq(vendors.id, assets.vendorId))
    .leftJoin(people, eq(people.id, assets.contactId))
    .where(and(eq(assets.id, input.id), withinSites(who, assets.siteId)))
  if (!row) throw notFound('asset')
  const { asset, place, payer, vendor, contact } = row
  return {
    id: asset.id,
    label: `${asset.tag} ${asset.name}`,
    place: { id: place.id, label: `${place.code} ${place.name}` },
    payer: payer && { id: payer.id, label: `${payer.code} ${payer.name}` },
    vendor: vendor && { id: vendor.id, label: vendor.name },
    contact: contact && { name: contact.name, phone: contact.phone },
    underWarrantyUntil: asset.warrantyUntil && asset.warrantyUntil >= now.toISOString().slice(0, 10) ? asset.warrantyUntil : null,
  }
})
