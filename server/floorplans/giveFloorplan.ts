import * as contract from '#contract/floorplans'
import { planGeoJson } from '#core/floorplans'
import { delivery } from '#server/kit'
import { planPlace } from './floorplan'
import { assetsOn, spacesOn } from './onFloor'

export default delivery(contract.giveFloorplan, async ({ db, who, input, response }) => {
  const place = await planPlace(db, who, input.id)
  const spaces = await spacesOn(db, place.id)
  const assets = await assetsOn(
    db,
    place.id,
    spaces.map(({ id }) => id),
  )
  response.attachment(`${place.code}.geojson`.replace(/[^\w.-]/g, '_')).type('application/geo+json')
  response.end(JSON.stringify(planGeoJson(place.code, { spaces, assets })))
})
