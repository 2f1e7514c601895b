import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/floorplans'
import { Refusal } from '#core/kit'
import { command } from '#server/kit'
import { places, spaceShapes } from '../tables'
import { floorplanOf, lockPlanAt, raisePlan } from './floorplan'

export default command(contract.eraseSpace, async ({ tx, who, input, now, tell }) => {
  const { place, plan } = await lockPlanAt(tx, who, input)
  const [gone] = await tx.delete(spaceShapes).where(and(eq(spaceShapes.spaceId, input.spaceId), eq(spaceShapes.planId, place.id)))
  if (!gone.affectedRows) throw new Refusal([{ code: 'not_drawn', sentence: 'It is not drawn on this plan.', field: 'spaceId' }])
  await raisePlan(tx, plan)
  const [space] = await tx.select({ code: places.code, name: places.name }).from(places).where(eq(places.id, input.spaceId))
  await tell({
    kind: 'floorplan.erase',
    siteId: place.siteId,
    register: 'places',
    recordId: place.id,
    details: { called: `${space!.code} ${space!.name}` },
  })
  return floorplanOf(tx, who, place, now)
})
