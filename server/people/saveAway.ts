import { and, eq, gt, isNull, lt } from 'drizzle-orm'
import * as contract from '#contract/people'
import { refuse } from '#core/kit'
import { may } from '#core/people'
import { askerById, can, command, notAllowed } from '#server/kit'
import { accounts, deputies } from '../tables'
import { awayRows } from './listAway'

export default command(contract.saveAway, async ({ tx, who, input, now, tell }) => {
  const accountId = input.accountId ?? who.accountId!
  if (accountId !== who.accountId && !can(who, 'setup.edit')) throw notAllowed()
  const [fromAt, untilAt] = [new Date(input.fromAt), new Date(input.untilAt)]
  if (untilAt <= now) refuse('over_already', 'That period is over.', 'untilAt')
  if (input.deputyId === accountId) refuse('own_deputy', 'Choose somebody else: nobody stands in for themselves.', 'deputyId')
  // One after the other, so that two periods entered at once cannot lie over each other.
  await tx.select({ id: accounts.id }).from(accounts).where(eq(accounts.id, accountId)).for('update')
  const deputy = await askerById(tx, input.deputyId)
  const away = await askerById(tx, accountId)
  if (!deputy || !away) refuse('account_unknown', 'Choose a person from the list.', 'deputyId')
  if (may(away.roles, 'orders.approve') && !may(deputy.roles, 'orders.approve'))
    refuse('deputy_no_approver', `${deputy.name} approves nothing. Choose an approver, so that nothing waits.`, 'deputyId')
  const [overlap] = await tx
    .select({ id: deputies.id })
    .from(deputies)
    .where(and(eq(deputies.forAccountId, accountId), lt(deputies.fromAt, untilAt), gt(deputies.untilAt, fromAt)))
  if (overlap) refuse('away_twice', 'There is such a period already; end it first.', 'fromAt')
  const [gone] = await tx
    .select({ id: accounts.id })
    .from(accounts)
    .where(and(eq(accounts.id, input.deputyId), isNull(accounts.disabledAt)))
  if (!gone) refuse('deputy_closed', 'That account is closed.', 'deputyId')
  await tx.insert(deputies).values({ forAccountId: accountId, deputyAccountId: input.deputyId, fromAt, untilAt })
  await tell({ kind: 'people.away', details: { name: away.name, deputy: deputy.name, from: fromAt.toISOString(), until: untilAt.toISOString() } })
  return { rows: await awayRows(tx, now) }
})
