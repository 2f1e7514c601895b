export const ORDER_STATES = ['draft', 'to_approve', 'ready', 'dispatched', 'on_job', 'on_hold', 'done', 'checked', 'closed', 'cancelled'] as const
export type OrderState = (typeof ORDER_STATES)[number]

export const ORDER_STATE_NAMES: Record<OrderState, string> = {
  draft: 'Draft',
  to_approve: 'To approve',
  ready: 'Ready',
  dispatched: 'Dispatched',
  on_job: 'On the job',
  on_hold: 'On hold',
  done: 'Done',
  checked: 'Checked',
  closed: 'Closed',
  cancelled: 'Cancelled',
}

export const ORDER_KINDS = ['repair', 'preventive', 'inspection', 'improvement', 'call_back'] as const
export type OrderKind = (typeof ORDER_KINDS)[number]

export const ORDER_KIND_NAMES: Record<OrderKind, string> = {
  repair: 'Repair',
  preventive: 'Preventive',
  inspection: 'Inspection',
  improvement: 'Improvement',
  call_back: 'Call-back',
}

export const HOLD_REASONS = ['part', 'access', 'vendor', 'approval', 'weather', 'other'] as const
export type HoldReason = (typeof HOLD_REASONS)[number]

export const HOLD_REASON_NAMES: Record<HoldReason, string> = {
  part: 'Waiting for a part',
  access: 'Waiting for access',
  vendor: 'Waiting for the vendor',
  approval: 'Waiting for approval',
  weather: 'Waiting for the weather',
  other: 'Waiting for something else',
}

/** Over: nothing more is done on it, unless it is taken up again. All others are open. */
export const OVER_STATES: OrderState[] = ['done', 'checked', 'closed', 'cancelled']
export const OPEN_STATES: readonly OrderState[] = ORDER_STATES.filter((state) => !isOver(state))
/** The work was done, whatever became of the charge. */
export const FINISHED_STATES: OrderState[] = ['done', 'checked', 'closed']
/** Settled: charged or called off, so that nothing of it changes any more. */
export const SETTLED_STATES: OrderState[] = ['closed', 'cancelled']
/** Nobody has agreed to it yet. */
export const UNAPPROVED_STATES: OrderState[] = ['draft', 'to_approve']

export function isOver(state: OrderState): boolean {
  return OVER_STATES.includes(state)
}
export function isFinished(state: OrderState): boolean {
  return FINISHED_STATES.includes(state)
}
export function isSettled(state: OrderState): boolean {
  return SETTLED_STATES.includes(state)
}
export function isUnapproved(state: OrderState): boolean {
  return UNAPPROVED_STATES.includes(state)
}

/** Approved at some time and not called off: what a technician or vendor may ever be shown. */
export const SEEN_IN_FIELD: readonly OrderState[] = ['dispatched', 'on_job', 'on_hold', 'done', 'checked', 'closed']

/** The seven stations of the Flow, in order. */
export const STATIONS = ['intake', 'triage', 'planning', 'dispatch', 'field', 'wrapup', 'charges'] as const
export type Station = (typeof STATIONS)[number]

export const STATION_NAMES: Record<Station, string> = {
  intake: 'Intake',
  triage: 'Triage',
  planning: 'Planning',
  dispatch: 'Dispatch',
  field: 'In the field',
  wrapup: 'Wrap-up',
  charges: 'Charges',
}

/** Which orders each station holds; Intake and Triage hold requests. */
export const STATION_STATES: Record<Station, OrderState[]> = {
  intake: [],
  triage: [],
  planning: ['draft', 'to_approve'],
  dispatch: ['ready', 'dispatched'],
  field: ['on_job', 'on_hold'],
  wrapup: ['done'],
  charges: ['checked'],
}

/** The stations that hold orders. */
export const ORDER_STATIONS: Station[] = STATIONS.filter((station) => STATION_STATES[station].length > 0)

/** The station a Sheet is opened at: where the order is, or the last one when it is over. */
export function stationOf(state: OrderState): Station {
  return STATIONS.find((station) => STATION_STATES[station].includes(state)) ?? 'charges'
}

/** How many of the seven stages an order has reached, 1 to 7; the stage ring draws it. */
export function stageReached(state: OrderState, heldFrom: OrderState | null = null): number {
  const at: Record<OrderState, number> = {
    draft: 3,
    to_approve: 3,
    ready: 4,
    dispatched: 4,
    on_job: 5,
    on_hold: 5,
    done: 6,
    checked: 7,
    closed: 7,
    cancelled: 0,
  }
  if (state === 'on_hold' && heldFrom) return at[heldFrom]
  return at[state]
}
