import fc from 'fast-check'
import { Refusal } from '#core/kit'
import { moveOrder, offeredMoves, ORDER_MOVES, ORDER_STATES, orderMoveReasons, SEEN_IN_FIELD, STATION_STATES } from '#core/orders'
import type { OrderFacts, OrderMove, OrderState } from '#core/orders'
import { whole } from '../../tests/kit/wholeOrder'

const MOVES = Object.keys(ORDER_MOVES) as OrderMove[]

describe('the lifecycle table', () => {
  test('the plain way leads from draft to closed', () => {
    let state: OrderState = 'draft'
    for (const move of ['submit', 'approve', 'dispatch', 'start', 'finish', 'check', 'post'] as OrderMove[]) state = moveOrder({ ...whole, state }, move, null)
    expect(state).toBe('closed')
  })

  test('every state can be reached, and every move leads to a state of the list', () => {
    const reached = new Set<OrderState>(['draft'])
    for (const move of MOVES)
      for (const from of ORDER_MOVES[move].from) {
        const { to } = ORDER_MOVES[move]
        const end = typeof to === 'function' ? to({ ...whole, state: from, heldFrom: 'dispatched' }) : to
        expect(ORDER_STATES).toContain(end)
        reached.add(end)
      }
    expect([...reached].sort()).toEqual([...ORDER_STATES].sort())
  })

  test('no sequence of moves gets past a state the table does not allow, a needed reason or a limit', () => {
    const step = fc.record({ move: fc.constantFrom(...MOVES), reason: fc.constantFrom(null, '', 'because'), limit: fc.constantFrom(null, 5_000, 250_000) })
    fc.assert(
      fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
        let facts = { ...whole }
        let wasApproved = false
        for (const { move, reason, limit } of steps) {
          const before = facts.state
          try {
            const asks = facts.asks.map((ask) => ({ ...ask, mine: limit !== null && limit >= facts.estimateMinor! }))
            const to = moveOrder({ ...facts, approvalLimitMinor: limit, asks }, move, reason)
            expect(ORDER_MOVES[move].from).toContain(before)
            if (ORDER_MOVES[move].reason === 'required') expect(reason).toBe('because')
            if (move === 'approve') {
              expect(limit).toBeGreaterThanOrEqual(facts.estimateMinor!)
              wasApproved = true
            }
            // Small work the site lets be started on the spot is agreed to by its rule.
            if (move === 'begin') {
              expect(facts.estimateMinor!).toBeLessThanOrEqual(facts.rules.onSpotMinor!)
              wasApproved = true
            }
            if (to === 'draft') wasApproved = false
            if (SEEN_IN_FIELD.includes(to)) expect(wasApproved).toBe(true)
            facts = {
              ...facts,
              state: to,
              heldFrom: move === 'hold' ? before : facts.heldFrom,
              posted: move === 'post' ? true : move === 'reverse' ? false : facts.posted,
              recorded: true,
            }
          } catch (error) {
            expect(error).toBeInstanceOf(Refusal)
          }
        }
      }),
    )
  })

  test('what is missing is said at its field, all of it at once', () => {
    const bare: OrderFacts = {
      ...whole,
      summary: '',
      description: '',
      placeId: null,
      tradeId: null,
      teamId: null,
      leadId: null,
      supervisorId: null,
      priority: null,
      estimateMinor: null,
      shares: [],
    }
    expect(orderMoveReasons(bare, 'submit').map((reason) => reason.field)).toEqual([
      'summary',
      'description',
      'placeId',
      'consequence',
      'tradeId',
      'teamId',
      'leadId',
      'supervisorId',
      'shares',
      'estimateMinor',
    ])
  })

  test('an estimate over the limit is not approved, and the sentence says both', () => {
    expect(() => moveOrder({ ...whole, state: 'to_approve', estimateMinor: 250_001, asks: [{ ...whole.asks[0]!, mine: false }] }, 'approve', null)).toThrow(
      'The estimate of 2,500.01 is over your limit of 2,500.00.',
    )
    expect(() => moveOrder({ ...whole, state: 'to_approve', approvalLimitMinor: null, asks: [{ ...whole.asks[0]!, mine: false }] }, 'approve', null)).toThrow(
      'You do not approve orders.',
    )
  })

  test('shares must be whole before anything is checked or charged', () => {
    const facts = {
      ...whole,
      shares: [
        { payerId: 1, shareBp: 5_000 },
        { payerId: 2, shareBp: 4_999 },
      ],
    }
    expect(orderMoveReasons({ ...facts, state: 'done' }, 'check').map((reason) => reason.code)).toEqual(['shares_not_whole'])
    expect(orderMoveReasons({ ...facts, state: 'checked' }, 'post').map((reason) => reason.code)).toEqual(['shares_not_whole'])
  })

  test('resuming goes back to where it was held from', () => {
    expect(moveOrder({ ...whole, state: 'on_hold', heldFrom: 'ready' }, 'resume', null)).toBe('ready')
    expect(moveOrder({ ...whole, state: 'on_hold', heldFrom: 'on_job' }, 'resume', null)).toBe('dispatched')
    expect(moveOrder({ ...whole, state: 'on_hold', heldFrom: 'dispatched', liveVisits: 0 }, 'resume', null)).toBe('ready')
  })

  test('a draft with anything recorded is not discarded; a discarded one offers nothing', () => {
    expect(() => moveOrder(whole, 'discard', null)).toThrow('it can be cancelled but not discarded')
    expect(moveOrder({ ...whole, recorded: false }, 'discard', null)).toBe('draft')
    expect(offeredMoves({ ...whole, discarded: true })).toEqual([])
  })

  test('every open state stands at exactly one station', () => {
    const placed = Object.values(STATION_STATES).flat()
    expect(placed.sort()).toEqual(ORDER_STATES.filter((state) => state !== 'closed' && state !== 'cancelled').sort())
  })
})
