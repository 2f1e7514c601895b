import { formatMinor } from '#core/kit'
import type { Reason } from '#core/kit'
import type { ApprovalAsk, ApprovalRule, OpenAsk, PayerConsent } from './agreements'
import { conditionWords, meets } from './conditions'
import type { RuleNames } from './conditions'
import type { OrderFacts } from './facts'

/**
 * Who has to agree to this order, and why: the persons its rules ask, payers who asked to be asked,
 * and, whatever the rules say, somebody whose limit covers the estimate. Asked once each.
 */
export function neededAsks(facts: OrderFacts, rules: ApprovalRule[], consents: PayerConsent[], names: RuleNames): ApprovalAsk[] {
  const asks: ApprovalAsk[] = []
  const add = (ask: ApprovalAsk) => {
    const before = asks.find((one) => one.kind === ask.kind && one.accountId === ask.accountId && one.payerId === ask.payerId)
    if (before) before.position = Math.max(before.position, ask.position)
    else asks.push(ask)
  }
  const inForce = rules.filter((one) => meets(one.when, facts))
  for (const rule of inForce) {
    const when = conditionWords(rule.when, names)
    rule.asks.forEach((asked, index) => {
      const accountId = asked === 'supervisor' ? facts.supervisorId : asked.accountId
      if (accountId === null) return
      const as = asked === 'supervisor' ? ' supervises it and' : ''
      add({
        position: rule.inOrder ? index + 1 : 1,
        kind: 'person',
        accountId,
        payerId: null,
        why: `${names.account(accountId)}${as} agrees to every order${when ? ` ${when}` : ''}.`,
      })
    })
  }
  for (const consent of consents) {
    const share = facts.shares.find((one) => one.payerId === consent.payerId)
    const theirs = share ? Math.round(((facts.estimateMinor ?? 0) * share.shareBp) / 10_000) : 0
    if (share && theirs > consent.aboveMinor)
      add({
        position: 1,
        kind: 'consent',
        accountId: consent.accountId,
        payerId: consent.payerId,
        why: `${names.account(consent.accountId)} consents for ${consent.payerName} to more than ${formatMinor(consent.aboveMinor)}; ${formatMinor(theirs)} would be theirs.`,
      })
  }
  asks.push({
    position: 1 + Math.max(0, ...inForce.filter((rule) => rule.inOrder).map((rule) => rule.asks.length)),
    kind: 'limit',
    accountId: null,
    payerId: null,
    why: `Somebody whose limit covers ${formatMinor(facts.estimateMinor ?? 0)} approves it.`,
  })
  return asks.sort((a, b) => a.position - b.position)
}

/**
 * The agreements this person gives by approving now: all that are theirs, from the lowest open
 * position on, as long as nobody else has to go first.
 */
export function settledBy(asks: OpenAsk[]): OpenAsk[] {
  const open = asks.filter((ask) => !ask.decided).sort((a, b) => a.position - b.position)
  const settled: OpenAsk[] = []
  for (const position of new Set(open.map((ask) => ask.position))) {
    const here = open.filter((ask) => ask.position === position)
    const mine = here.filter((ask) => ask.mine)
    settled.push(...mine)
    if (mine.length < here.length) break
  }
  return settled
}

/** What is still open once this person has approved. */
export function openAfter(asks: OpenAsk[]): OpenAsk[] {
  const settled = settledBy(asks)
  return asks.filter((ask) => !ask.decided && !settled.includes(ask))
}

/** Whoever approves is asked, and it is their turn. */
export function myTurn(facts: OrderFacts): Reason[] {
  const own = ownSubmission(facts)
  if (own) return [own]
  const open = facts.asks.filter((ask) => !ask.decided)
  if (settledBy(facts.asks).length) return []
  const limit = open.find((ask) => ask.kind === 'limit')
  if (facts.approvalLimitMinor === null) return [{ code: 'not_an_approver', sentence: 'You do not approve orders.' }]
  if (open.some((ask) => ask.mine))
    return [{ code: 'not_your_turn', sentence: `${listed(firstOpen(open))} ${firstOpen(open).length > 1 ? 'agree' : 'agrees'} first; then it is your turn.` }]
  if (limit && (facts.estimateMinor ?? 0) > facts.approvalLimitMinor)
    return [
      {
        code: 'over_limit',
        sentence: `The estimate of ${formatMinor(facts.estimateMinor ?? 0)} is over your limit of ${formatMinor(facts.approvalLimitMinor)}.`,
        field: 'estimateMinor',
      },
    ]
  return [{ code: 'not_asked', sentence: `It waits for ${listed(open)}, not for you.` }]
}

/** Nobody approves what they submitted, unless the site says that their own limit is enough. */
function ownSubmission(facts: OrderFacts): Reason | null {
  if (!facts.submittedByMe) return null
  if (facts.rules.ownSubmissions === 'never') return { code: 'own_submission', sentence: 'You submitted it yourself; somebody else approves it.' }
  return (facts.ownLimitMinor ?? -1) >= (facts.estimateMinor ?? 0)
    ? null
    : {
        code: 'own_submission',
        sentence: 'You submitted it yourself, and your own limit does not cover it; somebody else approves it.',
        field: 'estimateMinor',
      }
}

const firstOpen = (open: OpenAsk[]) => {
  const lowest = Math.min(...open.map((ask) => ask.position))
  return open.filter((ask) => ask.position === lowest)
}
const listed = (asks: OpenAsk[]) => asks.map((ask) => ask.who).join(' and ')

/** A rule as the sentence Setup shows: "Orders from 500.00 need the agreement of A, then B." */
export function approvalRuleSentence(rule: ApprovalRule, names: RuleNames): string {
  const when = conditionWords(rule.when, names)
  const whom = rule.asks.map((one) => (one === 'supervisor' ? 'whoever supervises it' : names.account(one.accountId)))
  return `${when ? `Orders ${when}` : 'All orders'} need the agreement of ${whom.join(rule.inOrder ? ', then ' : ' and ')}.`
}
