import * as contract from '#contract/floorplans'
import { boundsOf } from '#core/floorplans'
import { keepAttachment, preparedCommand, readPicture } from '#server/kit'
import { floorplanOf, lockPlanAt, planPlace, raisePlan } from './floorplan'
import { spacesOn } from './onFloor'

const USUAL_WIDTH = 40
const USUAL_STRENGTH = 60

/** A picture comes to lie under what is drawn, as wide as that; where nothing is, it is taken to be 40 m wide. */
export default preparedCommand(
  contract.layPicture,
  async ({ request }) => ({ ...(await readPicture(request.file)), name: request.file!.originalname }),
  async ({ tx, who, input, now, tell, ready: { name: sent, ...picture } }) => {
    const { place, plan } = await lockPlanAt(tx, who, input)
    const name = sent.replace(/[\\/]/g, ' ').slice(0, 160)
    const fileId = await keepAttachment(tx, { siteId: place.siteId, name, ...picture, bytes: picture.content.length, at: now })
    const bounds = boundsOf((await spacesOn(tx, place.id)).flatMap(({ shape }) => shape?.flat() ?? []))
    await raisePlan(tx, plan, {
      pictureId: fileId,
      pictureLeft: bounds?.west ?? 0,
      pictureBottom: bounds?.south ?? 0,
      pictureWidth: bounds ? Math.max(1, bounds.east - bounds.west) : USUAL_WIDTH,
      pictureStrength: USUAL_STRENGTH,
    })
    await tell({ kind: 'floorplan.picture', siteId: place.siteId, register: 'places', recordId: place.id, details: { what: 'laid', file: name } })
    return floorplanOf(tx, who, place, now)
  },
  ({ db, who, input }) => planPlace(db, who, input.id),
)
