import * as contract from '#contract/field'
import { refuse } from '#core/kit'
import { isFinished } from '#core/orders'
import { jobCommand } from '#server/field'
import { bringAlongBack, takeAlong } from './changeBooking'

/** Past its planned end a visit goes on for a while (our own choice, no source). */
const GOES_ON_MS = 4 * 3_600_000

export const takeEquipment = jobCommand(contract.takeEquipment, async ({ tx, who, input, visit, order, at, tell }) => {
  if (isFinished(order.state)) refuse('order_over', 'The work is finished: nothing is taken for it any more.')
  const until = new Date(Math.max(visit.plannedEnd.getTime(), at.getTime() + GOES_ON_MS))
  await takeAlong({ tx, at, by: who.accountId, tell, order, equipmentId: input.equipmentId }, who.name, until)
})

export const bringEquipmentBack = jobCommand(contract.bringEquipmentBack, ({ tx, who, input, order, at, tell }) =>
  bringAlongBack({ tx, at, by: who.accountId, tell, order, equipmentId: input.equipmentId }, input.note || null),
)
