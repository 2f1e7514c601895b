import { Refusal } from '#core/kit'
import { moveOrder, ORDER_MOVE_NAMES, ORDER_MOVES, ORDER_STATES, orderMoveReasons } from '#core/orders'
import type { OrderFacts, OrderMove, OrderState } from '#core/orders'
import { whole } from '../../tests/kit/wholeOrder'

/** The table as it is agreed (docs/order-lifecycle.md), written out by hand: from where, and to where. */
const AGREED: Record<OrderMove, [OrderState[], OrderState]> = {
  submit: [['draft'], 'to_approve'],
  approve: [['to_approve'], 'ready'],
  sendBack: [['to_approve'], 'draft'],
  askAgain: [['ready'], 'to_approve'],
  dispatch: [['ready', 'dispatched'], 'dispatched'],
  begin: [['draft'], 'dispatched'],
  recall: [['dispatched', 'on_job'], 'ready'],
  start: [['dispatched', 'on_job'], 'on_job'],
  hold: [['ready', 'dispatched', 'on_job'], 'on_hold'],
  resume: [['on_hold'], 'ready'],
  finish: [['on_job'], 'done'],
  reopen: [['done', 'checked', 'cancelled'], 'ready'],
  check: [['done'], 'checked'],
  post: [['checked'], 'closed'],
  close: [['checked'], 'closed'],
  reverse: [['closed'], 'checked'],
  cancel: [['draft', 'to_approve', 'ready', 'dispatched', 'on_hold'], 'cancelled'],
  discard: [['draft'], 'draft'],
}
/** What else each move needs to be possible, over the whole order of the tests. */
const READY: Partial<Record<OrderMove, Partial<OrderFacts>>> = {
  askAgain: { outgrownMinor: 20_000 },
  close: { costMinor: 0 },
  reverse: { posted: true },
  discard: { recorded: false },
  resume: { liveVisits: 0 },
}
const possible = (move: OrderMove): OrderFacts => ({ ...whole, state: AGREED[move][0][0]!, heldFrom: 'ready', ...READY[move] })
const codes = (facts: OrderFacts, move: OrderMove) => orderMoveReasons(facts, move).map((reason) => reason.code)

describe.each(ORDER_MOVE_NAMES)('%s', (move) => {
  test('is possible from the agreed states alone', () => {
    for (const state of ORDER_STATES) {
      const facts = { ...possible(move), state }
      if (AGREED[move][0].includes(state)) expect([state, codes(facts, move)]).toEqual([state, []])
      else expect([state, codes(facts, move)]).toEqual([state, ['wrong_state']])
    }
  })
  test('leads where it is agreed', () => expect(moveOrder(possible(move), move, 'because')).toBe(AGREED[move][1]))
  test('nothing is done on a discarded draft', () => expect(codes({ ...possible(move), discarded: true }, move)).toEqual(['discarded']))
})

/** One fact broken at a time: the move is refused by exactly that code, at its field. */
test.each<[OrderMove, Partial<OrderFacts>, string, string | undefined]>([
  ['submit', { summary: '' }, 'summary_missing', 'summary'],
  ['submit', { estimateMinor: 0 }, 'estimate_missing', 'estimateMinor'],
  ['approve', { priority: null }, 'priority_missing', 'consequence'],
  ['dispatch', { liveVisits: 0 }, 'nobody_planned', 'visits'],
  ['dispatch', { outgrownMinor: 20_000 }, 'outgrown', 'estimate'],
  ['askAgain', { outgrownMinor: null }, 'agreed', 'estimate'],
  ['askAgain', { estimateMinor: 0 }, 'estimate_missing', 'estimateMinor'],
  ['begin', { liveVisits: 0 }, 'nobody_planned', 'visits'],
  ['begin', { estimateMinor: 50_001 }, 'over_on_spot', 'estimateMinor'],
  ['begin', { rules: { ...whole.rules, onSpotMinor: null } }, 'not_on_spot', undefined],
  ['recall', { runningStints: 1 }, 'clock_running', 'stints'],
  ['hold', { runningStints: 1 }, 'clock_running', 'stints'],
  ['finish', { runningStints: 1 }, 'clock_running', 'stints'],
  ['finish', { symptom: null }, 'symptom_missing', 'symptom'],
  ['finish', { cause: '' }, 'cause_missing', 'cause'],
  ['finish', { fix: null }, 'fix_missing', 'fix'],
  ['finish', { openMembers: ['W-2'] }, 'members_open', 'members'],
  ['check', { fix: '' }, 'fix_missing', 'fix'],
  ['check', { loggedMinutes: 0, costMinor: 0 }, 'hours_missing', 'stints'],
  ['check', { equipmentOut: ['Scaffold tower'] }, 'equipment_out', 'equipment'],
  ['post', { equipmentOut: ['Scaffold tower', 'Leak camera'] }, 'equipment_out', 'equipment'],
  ['check', { vendorVisitsWithoutBill: 1 }, 'bill_missing', 'bills'],
  ['check', { shares: [] }, 'payer_missing', 'shares'],
  ['post', { vendorVisitsWithoutBill: 1 }, 'bill_missing', 'bills'],
  ['post', { shares: [] }, 'payer_missing', 'shares'],
  ['post', { costMinor: 0 }, 'nothing_to_charge', undefined],
  ['close', { costMinor: 1 }, 'cost_not_posted', undefined],
  ['reverse', { posted: false }, 'not_posted', undefined],
  ['cancel', { runningStints: 1 }, 'clock_running', 'stints'],
  ['discard', { recorded: true }, 'recorded', undefined],
])('%s with %j: %s', (move, broken, code, field) => {
  expect(orderMoveReasons({ ...possible(move), ...broken }, move).map((reason) => [reason.code, reason.field])).toEqual([[code, field]])
})

test('time without cost, and cost without time, are both work that was done', () => {
  expect(codes({ ...possible('check'), loggedMinutes: 0, costMinor: 1 }, 'check')).toEqual([])
  expect(codes({ ...possible('check'), loggedMinutes: 1, costMinor: 0 }, 'check')).toEqual([])
})

test('moves that need words in writing are refused without them, and only those', () => {
  const needed = ORDER_MOVE_NAMES.filter((move) => {
    try {
      moveOrder(possible(move), move, '  ')
      return false
    } catch (error) {
      expect((error as Refusal).reasons).toEqual([expect.objectContaining({ code: 'reason_missing', field: 'reason' })])
      return true
    }
  })
  expect(needed).toEqual(['sendBack', 'askAgain', 'hold', 'reopen', 'reverse', 'cancel'])
})

test('a cancelled order comes back as a draft, a finished one as ready', () => {
  expect(moveOrder({ ...whole, state: 'cancelled' }, 'reopen', 'because')).toBe('draft')
  expect(moveOrder({ ...whole, state: 'done' }, 'reopen', 'because')).toBe('ready')
  expect(moveOrder({ ...whole, state: 'checked' }, 'reopen', 'because')).toBe('ready')
})

test('who may make which move', () => {
  const by: Record<string, OrderMove[]> = {}
  for (const move of ORDER_MOVE_NAMES) (by[ORDER_MOVES[move].may] ??= []).push(move)
  expect(by).toEqual({
    'orders.edit': ['submit', 'askAgain', 'cancel'],
    'orders.approve': ['approve', 'sendBack'],
    'orders.dispatch': ['dispatch', 'recall', 'hold', 'resume', 'reopen'],
    'field.work': ['begin', 'start', 'finish'],
    'orders.check': ['check'],
    'ledger.post': ['post', 'close', 'reverse'],
    'orders.discard': ['discard'],
  })
})
