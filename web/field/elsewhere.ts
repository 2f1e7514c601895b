import { carryJobs } from '#contract/field'
import { clockElsewhere, rowsWithActs } from '#core/field'
import { useCarrying } from '#web/devices'
import { address, CallProblem } from '#web/kit'

/** Says at once what the server would say later: the clock runs on one job at a time. @throws CallProblem */
export async function refuseElsewhere(visitId: number): Promise<void> {
  const carrying = useCarrying()
  // With signal the server knows better, from the other phone too.
  if (!carrying.away) return
  const carried = await carrying.kept<{ rows: Parameters<typeof rowsWithActs>[0] & { number: string }[] }>(address(carryJobs, {}))
  const acts = carrying.acts.map(({ body }) => body)
  const other = carried && clockElsewhere(rowsWithActs(carried.rows as (typeof carried.rows)[number][], acts), visitId)
  if (!other) return
  const sentence = `Your clock is running on ${other.number}. Stop it there first.`
  throw new CallProblem({ type: 'about:blank', title: 'Not yet', status: 422, detail: sentence, reasons: [{ code: 'clock_elsewhere', sentence }] })
}
