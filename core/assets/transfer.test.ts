import fc from 'fast-check'
import { moveTransfer, OPEN_TRANSFER_STATES, standsAt, TRANSFER_KINDS, TRANSFER_MOVES, TRANSFER_STATES } from '#core/assets'
import type { TransferFacts, TransferMove, TransferState } from '#core/assets'

const facts = (over: Partial<TransferFacts> = {}): TransferFacts => ({
  kind: 'move',
  state: 'asked',
  askedByMe: false,
  answersThere: true,
  answersHere: true,
  ...over,
})
const after = (move: TransferMove, over: Partial<TransferFacts> = {}) => {
  const { state, reasons } = moveTransfer(facts(over), move)
  return state ?? reasons[0]!.code
}

test('each move from each state: what it leads to, written out by hand', () => {
  const table = Object.fromEntries(TRANSFER_MOVES.map((move) => [move, TRANSFER_STATES.map((state) => after(move, { state, askedByMe: move === 'withdraw' }))]))
  const not = 'wrong_state'
  expect(table).toEqual({
    agree: ['done', not, not, not, not, not],
    refuse: ['refused', not, not, not, not, not],
    withdraw: ['withdrawn', not, not, not, not, not],
    giveBack: [not, not, 'returned', not, not, not],
  })
  expect(after('agree', { kind: 'loan' })).toBe('lent')
})

test('agreed by somebody else, who answers where it goes; withdrawn by who asked; given back by either', () => {
  expect([after('agree', { askedByMe: true }), after('agree', { answersThere: false }), after('refuse', { askedByMe: true })]).toEqual([
    'not_yours',
    'not_yours',
    'not_yours',
  ])
  expect([after('refuse', { answersThere: false }), after('withdraw')]).toEqual(['not_yours', 'not_yours'])
  const lent = { state: 'lent' as const, kind: 'loan' as const }
  expect(after('giveBack', { ...lent, answersThere: false })).toBe('returned')
  expect(after('giveBack', { ...lent, answersHere: false })).toBe('returned')
  expect(after('giveBack', { ...lent, answersHere: false, answersThere: false })).toBe('not_yours')
})

test('whatever is tried in whatever order, an asset is in one place, and open transfers never overlap', () => {
  const act = fc.record({
    ask: fc.boolean(),
    kind: fc.constantFrom(...TRANSFER_KINDS),
    move: fc.constantFrom(...TRANSFER_MOVES),
    me: fc.boolean(),
    there: fc.boolean(),
  })
  fc.assert(
    fc.property(fc.array(act, { maxLength: 60 }), (acts) => {
      const all: { kind: 'move' | 'loan'; state: TransferState; from: number; to: number }[] = []
      let place = 0
      for (const { ask, kind, move, me, there } of acts) {
        const open = all.filter((one) => OPEN_TRANSFER_STATES.includes(one.state))
        expect(open.length).toBeLessThanOrEqual(1)
        if (ask && !open.length) all.push({ kind, state: 'asked', from: place, to: place + 1 })
        const last = all.at(-1)
        if (!last) continue
        const { state } = moveTransfer({ ...last, askedByMe: me, answersThere: there, answersHere: there }, move)
        if (!state) continue
        last.state = state
        place = standsAt(state) === 'to' ? last.to : last.from
        // Where the newest says it is, is where it is: earlier ones are over and say so too.
        expect(place).toBe(standsAt(last.state) === 'to' ? last.to : last.from)
      }
    }),
  )
})
