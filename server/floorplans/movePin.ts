import { eq } from 'drizzle-orm'
import * as contract from '#contract/floorplans'
import { toMillimetre } from '#core/floorplans'
import { Refusal } from '#core/kit'
import { command, conflict } from '#server/kit'
import { assetPins } from '../tables'
import { floorplanOf, lockPlan } from './floorplan'
import { assetsOn, spacesOn } from './onFloor'

export default command(contract.movePin, async ({ tx, who, input, now, tell }) => {
  const { place } = await lockPlan(tx, who, input.id)
  const spaces = await spacesOn(tx, place.id)
  const asset = (
    await assetsOn(
      tx,
      place.id,
      spaces.map(({ id }) => id),
    )
  ).find(({ id }) => id === input.assetId)
  if (!asset)
    throw new Refusal([{ code: 'not_here', sentence: 'It does not stand on this floor by its record. Change its place there first.', field: 'assetId' }])
  // The plan is held: whoever moves another pin of this floor waits, so the version that was read is the one there is.
  if (asset.pinVersion !== input.version) throw conflict(asset.pinVersion, [{ field: 'at', theirs: asset.at, yours: input.at }])
  const [east, north] = input.at ? input.at.map(toMillimetre) : [null, null]
  const pin = { planId: place.id, east, north, version: input.version + 1 }
  if (input.version === 0) await tx.insert(assetPins).values({ assetId: asset.id, ...pin })
  else await tx.update(assetPins).set(pin).where(eq(assetPins.assetId, asset.id))
  await tell({
    kind: 'floorplan.pin',
    siteId: place.siteId,
    register: 'assets',
    recordId: asset.id,
    details: { called: `${asset.tag} ${asset.name}`, off: input.at === null },
  })
  return floorplanOf(tx, who, place, now)
})
