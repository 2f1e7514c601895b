import * as contract from '#contract/floorplans'
import { toMillimetre } from '#core/floorplans'
import { Refusal } from '#core/kit'
import { command } from '#server/kit'
import { floorplanOf, lockPlanAt, raisePlan } from './floorplan'

export default command(contract.movePicture, async ({ tx, who, input, now, tell }) => {
  const { place, plan } = await lockPlanAt(tx, who, input)
  if (plan.pictureId === null) throw new Refusal([{ code: 'no_picture', sentence: 'No picture lies under this plan.' }])
  const { picture } = input
  await raisePlan(
    tx,
    plan,
    picture
      ? {
          pictureLeft: toMillimetre(picture.left),
          pictureBottom: toMillimetre(picture.bottom),
          pictureWidth: toMillimetre(picture.width),
          pictureStrength: picture.strength,
        }
      : { pictureId: null, pictureLeft: null, pictureBottom: null, pictureWidth: null, pictureStrength: null },
  )
  await tell({
    kind: 'floorplan.picture',
    siteId: place.siteId,
    register: 'places',
    recordId: place.id,
    details: { what: picture ? 'moved' : 'taken away', file: '' },
  })
  return floorplanOf(tx, who, place, now)
})
