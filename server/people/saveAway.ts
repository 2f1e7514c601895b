import { and, eq, gt, lt } from 'drizzle-orm'
import * as contract from '#contract/people'
import { refuse } from '#core/kit'
import { may, sitesOf } from '#core/people'
import { askerById, command, notAllowed } from '#server/kit'
import type { Asker } from '#server/kit'
import { accounts, deputies } from '../tables'
import { administers } from './administers'
import { awayRows } from './listAway'

export default command(contract.saveAway, async ({ tx, who, input, now, tell }) => {
  const accountId = input.accountId ?? who.accountId!
  if (accountId !== who.accountId && !(await administers(tx, who, accountId))) throw notAllowed()
  const [fromAt, untilAt] = [new Date(input.fromAt), new Date(input.untilAt)]
  if (untilAt <= now) refuse('over_already', 'That period is over.', 'untilAt')
  if (input.deputyId === accountId) refuse('own_deputy', 'Choose somebody else: nobody stands in for themselves.', 'deputyId')
  // One after the other, so that two periods entered at once cannot lie over each other.
  await tx.select({ id: accounts.id }).from(accounts).where(eq(accounts.id, accountId)).for('update')
  const deputy = await askerById(tx, input.deputyId)
  const away = await askerById(tx, accountId)
  if (!deputy || !away) refuse('account_unknown', 'Choose a person from the list.', 'deputyId')
  if (may(away.roles, 'orders.approve') && !sharesApproving(away, deputy))
    refuse('deputy_no_approver', `${deputy.name} approves nothing where ${away.name} does. Choose an approver, so that nothing waits.`, 'deputyId')
  const [overlap] = await tx
    .select({ id: deputies.id })
    .from(deputies)
    .where(and(eq(deputies.forAccountId, accountId), lt(deputies.fromAt, untilAt), gt(deputies.untilAt, fromAt)))
  if (overlap) refuse('away_twice', 'There is such a period already; end it first.', 'fromAt')
  await tx.insert(deputies).values({ forAccountId: accountId, deputyAccountId: input.deputyId, fromAt, untilAt })
  await tell({ kind: 'people.away', details: { name: away.name, deputy: deputy.name, from: fromAt.toISOString(), until: untilAt.toISOString() } })
  return { rows: await awayRows(tx, who, now) }
})

/** Whether the deputy approves at a site where the person away does. */
function sharesApproving(away: Asker, deputy: Asker): boolean {
  const [theirs, own] = [away, deputy].map((one) => sitesOf(one.grants, 'orders.approve'))
  if (own === null) return true
  return theirs === null ? own!.length > 0 : own!.some((siteId) => theirs!.includes(siteId))
}
