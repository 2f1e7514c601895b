import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import * as contract from '#contract/places'
import { refuse } from '#core/kit'
import { delivery, inThread, withinSites } from '#server/kit'
import { assets, places, sites } from '../tables'
import type { Label, LabelJob } from './labels.worker'
import { namesAbove } from './namePlace'

const drawLabels = inThread<LabelJob, Uint8Array>('labels.worker')

export default delivery(contract.printLabels, async ({ db, who, input, service, response }) => {
  const ids = input.ids.split(',').map(Number)
  const found =
    input.kind === 'assets'
      ? await db
          .select({ asset: assets, place: places, site: sites })
          .from(assets)
          .innerJoin(places, eq(places.id, assets.placeId))
          .innerJoin(sites, eq(sites.id, assets.siteId))
          .where(and(inArray(assets.id, ids), isNull(assets.retiredAt), withinSites(who, assets.siteId)))
          .orderBy(asc(assets.tag))
      : (
          await db
            .select({ place: places, site: sites })
            .from(places)
            .innerJoin(sites, eq(sites.id, places.siteId))
            .where(and(inArray(places.id, ids), isNull(places.retiredAt), withinSites(who, places.siteId)))
            .orderBy(asc(places.code))
        ).map((row) => ({ ...row, asset: null }))
  if (!found.length) refuse('nothing', 'None of these is there any more. Choose again.', 'ids')
  const within = await namesAbove(
    db,
    found.map((row) => row.place),
  )
  const labels = found.map(({ asset, place, site }): Label => {
    const address = new URL(`${service.publicUrl()}/c/${site.code}`)
    address.searchParams.set('place', place.code)
    if (asset) address.searchParams.set('asset', asset.tag)
    const above = within.get(place.id)!
    return {
      code: asset?.tag ?? place.code,
      name: asset?.name ?? place.name,
      within: asset ? [place.name, above].filter(Boolean).join(', ') : above,
      address: address.href,
    }
  })
  const pdf = await drawLabels({ size: input.size, heading: found[0]!.site.name, labels })
  response.setHeader('Content-Type', 'application/pdf')
  response.setHeader('Content-Disposition', `attachment; filename="labels-${input.kind}-${input.size}.pdf"`)
  response.end(Buffer.from(pdf))
})
