import { isOver, standingAt } from '#core/orders'
import type { RuleBook, RuleSection } from '#core/orders'
import type { World } from './world'

/** What the marine station decided for itself: few rules, each of a kind a reader meets in Setup. */
export function makeRuleBook(world: World, siteId: number): void {
  const osric = world.rows.accounts.find((account) => account.email.startsWith('osric.vane'))!.id!
  const lifts = world.rows.categories.find((category) => category.name === 'Lifts')
  const content: Partial<RuleBook> = {
    reasons: [
      { move: 'recall', when: { priorities: ['emergency'] }, answers: ['Wrong trade', 'Not safe to go on', 'Taken over by a vendor'] },
      { move: 'cancel', when: { amountFromMinor: 100_000 }, answers: ['Not needed any more', 'Too dear', 'Done with another order'] },
    ],
    approvals: [{ when: { kinds: ['improvement'], amountFromMinor: 500_000 }, asks: ['supervisor', { accountId: osric }], inOrder: true }],
  }
  for (const [section, rules] of Object.entries(content)) world.put('ruleSections', { siteId, section: section as RuleSection, content: rules, version: 1 })
  if (lifts)
    world.add('targetExceptions', { siteId, categoryId: lifts.id!, priority: 'urgent', clock: 'continuous', responseMinutes: 60, completionMinutes: 240 })
  const kiosk = world.rows.payers.find((payer) => payer.code === 'NPK')!
  Object.assign(kiosk, { consentAboveMinor: 150_000, consentAccountId: osric })
}

/** People have been told of every promise up to now: the first look at a new world tells nobody anything old. */
export function tellTargets(world: World): void {
  for (const order of world.rows.orders) {
    const standing = standingAt(order, order.clockStoppedAt ?? world.now)
    order.toldStanding = isOver(order.state) || order.discardedAt ? 'over' : standing === 'on_time' ? 'none' : standing
  }
}
