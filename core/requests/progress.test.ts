import { dayWords, moveRequest, progressOf, REQUEST_MOVES, requestMoveReasons } from '#core/requests'
import { isFinished } from '#core/orders'
import type { OrderState } from '#core/orders'
import type { ProgressFacts, RequestFacts } from '#core/requests'

const now = new Date('2026-11-23T10:00:00Z')
const facts = (more: Partial<ProgressFacts>): ProgressFacts => ({
  state: 'accepted',
  declineReason: null,
  question: null,
  orders: [],
  zone: 'Europe/Dublin',
  now,
  ...more,
})
const order = (state: OrderState, plannedStart: string | null = null, holdReason: string | null = null) => ({
  state,
  finished: isFinished(state),
  plannedStart: plannedStart ? new Date(plannedStart) : null,
  holdReason,
})

describe('progress in the reporter’s words', () => {
  test.each([
    [facts({ state: 'new' }), 'received'],
    [facts({ state: 'asked', question: 'Which one?' }), 'question'],
    [facts({ orders: [order('to_approve')] }), 'looking'],
    [facts({ orders: [order('dispatched', '2026-11-24T09:00:00Z')] }), 'scheduled'],
    [facts({ orders: [order('on_job')] }), 'working'],
    [facts({ orders: [order('on_hold', null, 'part')] }), 'waiting'],
    [facts({ orders: [order('done')] }), 'done'],
    [facts({ orders: [order('done'), order('dispatched')] }), 'scheduled'],
    [facts({ orders: [order('cancelled'), order('closed')] }), 'done'],
    [facts({ orders: [order('cancelled')] }), 'closed'],
    [facts({ state: 'declined', declineReason: 'Not ours.' }), 'closed'],
  ])('%#: %s', (given, step) => {
    expect(progressOf(given).step).toBe(step)
  })

  test('names the day as a person would', () => {
    expect(dayWords(new Date('2026-11-23T15:00:00Z'), now, 'Europe/Dublin')).toBe('this afternoon')
    expect(dayWords(new Date('2026-11-24T09:00:00Z'), now, 'Europe/Dublin')).toBe('tomorrow morning')
    expect(dayWords(new Date('2026-11-26T18:00:00Z'), now, 'Europe/Dublin')).toBe('Thursday evening')
    expect(dayWords(new Date('2026-12-10T09:00:00Z'), now, 'Europe/Dublin')).toBe('Thursday 10 December, morning')
  })
})

describe('request moves', () => {
  const triaged: RequestFacts = { state: 'new', placeId: 1, assetId: null, categoryId: 1, priority: 'routine', payerId: 1 }

  test('accepting needs what an order needs, each reason at its field', () => {
    const bare = { ...triaged, placeId: null, categoryId: null, priority: null, payerId: null }
    expect(requestMoveReasons(bare, 'accept').map((reason) => reason.field)).toEqual(['placeId', 'categoryId', 'consequence', 'payerId'])
    expect(moveRequest(triaged, 'accept', null)).toBe('accepted')
  })

  test('declining and asking need words', () => {
    expect(() => moveRequest(triaged, 'decline', '  ')).toThrow('Write it in a few words.')
    expect(moveRequest(triaged, 'ask', 'Which one?')).toBe('asked')
  })

  test('what is decided stays decided', () => {
    for (const state of ['accepted', 'joined', 'declined'] as const)
      for (const move of Object.keys(REQUEST_MOVES) as (keyof typeof REQUEST_MOVES)[]) expect(() => moveRequest({ ...triaged, state }, move, 'why')).toThrow()
  })
})
