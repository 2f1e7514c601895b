import { isActed } from '#core/events'
import type { EventKind } from '#core/events'
import { undoReasons } from './undo'
import type { OutcomeFacts } from './undo'

const ME = 7
const outcome: OutcomeFacts = { move: 'accept', accountId: ME, since: [], order: { number: 'W-1', state: 'draft', recorded: false } }
const by = (accountId: number | null, kind: EventKind = 'order.edit') => ({
  accountId,
  who: accountId === null ? 'The clock' : `Person ${accountId}`,
  acted: isActed(kind),
})

test('who decided takes it back, also after acts of their own', () => {
  expect(undoReasons(outcome, ME)).toEqual([])
  expect(undoReasons({ ...outcome, since: [by(ME), by(ME, 'request.edit')] }, ME)).toEqual([])
  expect(undoReasons({ ...outcome, move: 'decline', order: null }, ME)).toEqual([])
})

test('somebody else’s outcome is not yours to take back', () => {
  expect(undoReasons(outcome, ME + 1).map((reason) => reason.code)).toEqual(['not_yours'])
})

test('once somebody else has acted it stays, and the refusal names them; the clock is nobody', () => {
  expect(undoReasons({ ...outcome, since: [by(null, 'order.past'), by(null, 'order.close_to')] }, ME)).toEqual([])
  expect(undoReasons({ ...outcome, since: [by(ME), by(9)] }, ME)[0]!.sentence).toBe('Person 9 has acted on it since, so it stays.')
  // A reporter has no account; their answer counts all the same.
  expect(undoReasons({ ...outcome, move: 'ask', order: null, since: [{ accountId: null, who: 'Aoife', acted: isActed('request.heard') }] }, ME)[0]!.code).toBe(
    'acted_on',
  )
})

test('an order that went on, or on which work was recorded, keeps its request', () => {
  expect(undoReasons({ ...outcome, order: { number: 'W-1', state: 'to_approve', recorded: false } }, ME)[0]!.code).toBe('order_moved')
  expect(undoReasons({ ...outcome, order: { number: 'W-1', state: 'draft', recorded: true } }, ME)[0]!.code).toBe('order_recorded')
})
