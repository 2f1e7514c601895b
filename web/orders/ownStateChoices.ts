import { ownStatesUnder } from '#core/orders'
import type { OrderState, OwnState } from '#core/orders'

/** The states of its own an order of a site can be in while it is in one of ours; none before they are known. */
export const ownStateChoices = (all: readonly (OwnState & { retired: boolean })[] | undefined, siteId: number, state: OrderState) =>
  ownStatesUnder(all ?? [], siteId, state).filter(({ retired }) => !retired)
