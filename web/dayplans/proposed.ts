import type { DayPlan, PlannedFor } from '#contract/dayplans'

/** Where a computed plan would put a job, for one of those who go. */
export interface Proposed {
  technicianId: number
  number: string
  from: string
  until: string
  /** It would be made with what is ticked. */
  ticked: boolean
}

/** What a plan that is looked at would change, to be drawn over what stands. */
export interface Proposals {
  puts: readonly Proposed[]
  /** Orders whose visits would go from where they are, and of whom: "12 of 3". */
  leaves: ReadonlySet<string>
}

/** Names a visit of an order with somebody. */
export const leavingKey = (orderId: number, technicianId: number): string => `${orderId} of ${technicianId}`

/** Of moves that were not made yet: where they put jobs, and where they take them away. */
export function proposalsOf(moves: NonNullable<DayPlan['result']>['moves'], ticked: ReadonlySet<number>): Proposals {
  const open = moves.filter(({ taken }) => !taken)
  const goes = (one: PlannedFor | null) => one?.people ?? []
  return {
    puts: open.flatMap(({ at, number, to }) =>
      goes(to).map(({ id }) => ({ technicianId: id, number, from: to!.start, until: to!.end, ticked: ticked.has(at) })),
    ),
    leaves: new Set(open.flatMap(({ orderId, from }) => goes(from).map(({ id }) => leavingKey(orderId, id)))),
  }
}
