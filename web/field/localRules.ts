import { carryJobs } from '#contract/field'
import type { JobSheet } from '#contract/field'
import { clockElsewhere, hazardsAsRead, refuseUnsafe, rowsWithActs } from '#core/field'
import { Refusal } from '#core/kit'
import type { Reason } from '#core/kit'
import type { StintKind } from '#core/ledger'
import { useCarrying } from '#web/devices'
import { address, CallProblem, serverNow } from '#web/kit'

type Row = { visitId: number; number: string } & Parameters<typeof rowsWithActs>[0][number]

/** On which other job the clock runs, by what this phone knows. */
export async function runningElsewhere(visitId: number): Promise<Row | null> {
  const carrying = useCarrying()
  const carried = await carrying.kept<{ rows: Row[] }>(address(carryJobs, {}))
  const acts = carrying.acts.map(({ body }) => body)
  return carried && clockElsewhere(rowsWithActs(carried.rows, acts), visitId)
}

/** Says at once what the server would say later: the clock runs on one job at a time. @throws CallProblem */
export async function refuseElsewhere(visitId: number): Promise<void> {
  const carrying = useCarrying()
  // With signal and nothing left to send, the server knows better, from the other phone too.
  const other = carrying.away || carrying.acts.length || !navigator.onLine ? await runningElsewhere(visitId) : null
  if (other) throw saysNo([{ code: 'clock_elsewhere', sentence: `Your clock is running on ${other.number}. Stop it there first.` }])
}

/** The same for hazards that were not read, and permits that are not held. @throws CallProblem */
export function refuseUnsafeHere({ hazards, hazardsReadAt, permits }: Pick<JobSheet, 'hazards' | 'hazardsReadAt' | 'permits'>, kind: StintKind): void {
  const held = permits.map((one) => ({ ...one, fromAt: new Date(one.fromAt), untilAt: new Date(one.untilAt) }))
  try {
    refuseUnsafe(kind, hazards, hazardsReadAt ? hazardsAsRead(hazards) : null, held, serverNow())
  } catch (error) {
    throw error instanceof Refusal ? saysNo(error.reasons) : error
  }
}

const saysNo = (reasons: Reason[]) => new CallProblem({ type: 'about:blank', title: 'Not yet', status: 422, detail: reasons[0]!.sentence, reasons })
