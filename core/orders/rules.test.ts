import fc from 'fast-check'
import {
  ALWAYS_NEEDED,
  approvalRuleSentence,
  completeForApproval,
  COMPLETENESS_LINES,
  conditionWords,
  DEFAULT_RULES,
  escalationSentence,
  meets,
  moveOrder,
  MOVES_WITH_REASON,
  myTurn,
  neededAsks,
  neededReason,
  openAfter,
  ORDER_KINDS,
  ORDER_MOVES,
  orderMoveReasons,
  reasonProblems,
  reasonRuleSentence,
  settledBy,
  toTell,
} from '#core/orders'
import type { ApprovalRule, OpenAsk, OrderCondition, OrderFacts, ReasonRule } from '#core/orders'
import type { OwnField } from '#core/own'
import { whole } from '../../tests/kit/wholeOrder'

const OWN: OwnField[] = [
  { id: 3, kind: 'orders', label: 'Plant stands still', shape: 'number', unit: 'h', choices: [] },
  { id: 4, kind: 'orders', label: 'Shutdown', shape: 'choice', unit: null, choices: [{ key: 'night', name: 'At night' }] },
  { id: 5, kind: 'orders', label: 'Purchase number', shape: 'text', unit: null, choices: [] },
  { id: 6, kind: 'orders', label: 'Noisy', shape: 'flag', unit: null, choices: [] },
]
const names = {
  place: (id: number) => `place ${id}`,
  payer: (id: number) => `payer ${id}`,
  account: (id: number) => `Person ${id}`,
  own: (id: number) => OWN.find((field) => field.id === id) ?? null,
}
const ruled = (facts: Partial<OrderFacts>, reasons: ReasonRule[]): OrderFacts => ({ ...whole, ...facts, rules: { ...whole.rules, reasons } })

describe('for which orders a rule holds', () => {
  const facts: OrderFacts = {
    ...whole,
    state: 'ready',
    kind: 'repair',
    priority: 'urgent',
    estimateMinor: 50_000,
    placePath: [1, 7, 31],
    ageDays: 12,
    own: { 3: 2, 4: 'night', 5: null, 6: 0 },
  }
  const cases: [OrderCondition, boolean][] = [
    [{}, true],
    [{ states: ['ready', 'draft'] }, true],
    [{ states: ['draft'] }, false],
    [{ kinds: ['call_back'] }, false],
    [{ priorities: ['urgent'] }, true],
    [{ amountFromMinor: 50_000 }, true],
    [{ amountFromMinor: 50_001 }, false],
    [{ placeId: 7 }, true],
    [{ placeId: 8 }, false],
    [{ payerIds: [2, 1] }, true],
    [{ payerIds: [2] }, false],
    [{ olderThanDays: 11 }, true],
    [{ olderThanDays: 12 }, false],
    [{ states: ['ready'], amountFromMinor: 60_000 }, false],
    [{ own: { fieldId: 3 } }, true],
    [{ own: { fieldId: 3, from: 2, to: 2 } }, true],
    [{ own: { fieldId: 3, from: 2.5 } }, false],
    [{ own: { fieldId: 3, to: 1.5 } }, false],
    [{ own: { fieldId: 4, oneOf: ['day', 'NIGHT'] } }, true],
    [{ own: { fieldId: 4, oneOf: ['day'] } }, false],
    [{ own: { fieldId: 4, from: 0 } }, false],
    [{ own: { fieldId: 5, filled: false } }, true],
    [{ own: { fieldId: 5, filled: true } }, false],
    [{ own: { fieldId: 5, oneOf: ['null'] } }, false],
    [{ own: { fieldId: 6, oneOf: ['0'] } }, true],
    [{ own: { fieldId: 6, filled: true } }, true],
    // A field that is out of use.
    [{ own: { fieldId: 9, filled: false } }, false],
  ]
  test.each(cases)('%j: %s', (condition, holds) => expect(meets(condition, facts)).toBe(holds))

  test('an order without an estimate is below every amount, and one without a place in no place', () => {
    expect(meets({ amountFromMinor: 0 }, { ...facts, estimateMinor: null })).toBe(false)
    expect(meets({ placeId: 1 }, { ...facts, placePath: [] })).toBe(false)
  })

  test('adding a condition never makes a rule hold for more orders', () => {
    const condition = fc.record(
      {
        states: fc.subarray(['draft', 'ready', 'done'] as const),
        kinds: fc.subarray([...ORDER_KINDS]),
        amountFromMinor: fc.nat(100_000),
        placeId: fc.constantFrom(1, 7, 9),
        olderThanDays: fc.nat(30),
      },
      { requiredKeys: [] },
    )
    fc.assert(
      fc.property(condition, condition, (one, other) => {
        if (meets({ ...one, ...other }, facts)) expect(meets(other, facts)).toBe(true)
      }),
    )
  })

  test('reads as a sentence', () => {
    expect(conditionWords({}, names)).toBe('')
    expect(
      conditionWords({ states: ['ready', 'dispatched'], kinds: ['repair'], amountFromMinor: 50_000, placeId: 7, payerIds: [1, 2, 3], olderThanDays: 1 }, names),
    ).toBe('in state Ready or Dispatched, of kind Repair, from 500.00, in place 7, paid by payer 1, payer 2 or payer 3, older than 1 day')
    const own = (condition: OrderCondition['own']) => conditionWords({ own: condition }, names)
    expect([
      own({ fieldId: 3, from: 2, to: 4 }),
      own({ fieldId: 4, oneOf: ['night', 'x'] }),
      own({ fieldId: 5, filled: true }),
      own({ fieldId: 5, filled: false }),
      own({ fieldId: 6, oneOf: ['1'] }),
      own({ fieldId: 9 }),
    ]).toEqual([
      'with Plant stands still from 2 h, up to 4 h',
      'with Shutdown At night or “x”',
      'with Purchase number filled in',
      'with Purchase number empty',
      'with Noisy yes',
      'with a field that is gone whatever it holds',
    ])
  })
})

describe('reasons', () => {
  const listed: ReasonRule = { move: 'recall', when: { priorities: ['emergency'] }, answers: ['Wrong trade', 'Not safe'] }

  test('a rule adds to the table and never loosens it', () => {
    for (const move of MOVES_WITH_REASON) {
      expect(neededReason(whole, move).needed).toBe(ORDER_MOVES[move].reason === 'required')
      expect(neededReason(ruled({}, [{ move, when: {}, answers: [] }]), move).needed).toBe(true)
    }
  })

  test('holds only for the orders it names, and only for its move', () => {
    expect(neededReason(ruled({ priority: 'routine' }, [listed]), 'recall')).toEqual({ needed: false, answers: [] })
    expect(neededReason(ruled({ priority: 'emergency' }, [listed]), 'recall')).toEqual({ needed: true, answers: ['Wrong trade', 'Not safe'] })
    expect(neededReason(ruled({ priority: 'emergency' }, [listed]), 'submit').needed).toBe(false)
  })

  test('from a list: one of it, with words of one’s own behind a colon or not; anything else is refused with the list', () => {
    const facts = ruled({ priority: 'emergency', state: 'dispatched' }, [listed])
    expect(reasonProblems(facts, 'recall', 'Wrong trade')).toEqual([])
    expect(reasonProblems(facts, 'recall', ' Not safe: the roof is wet ')).toEqual([])
    expect(reasonProblems(facts, 'recall', 'Wrong tradesman')[0]).toMatchObject({ code: 'reason_not_listed', field: 'reason' })
    expect(reasonProblems(facts, 'recall', '  ')[0]!.code).toBe('reason_missing')
    expect(() => moveOrder(facts, 'recall', 'because')).toThrow('“Recall” needs one of these reasons: Wrong trade; Not safe.')
    expect(moveOrder(facts, 'recall', 'Not safe')).toBe('ready')
  })

  test('a rule is a sentence', () => {
    expect(reasonRuleSentence(listed, names)).toBe('“Recall” of an order of priority Emergency: a reason from the list is needed: Wrong trade; Not safe.')
    expect(reasonRuleSentence({ move: 'submit', when: {}, answers: [] }, names)).toBe('“Submit for approval” of an order: a reason in free words is needed.')
  })
})

describe('completeness', () => {
  test('each line asked for is a sentence at its field; what is always needed cannot be taken away', () => {
    const bare: OrderFacts = {
      ...whole,
      summary: '',
      description: '',
      placeId: null,
      categoryId: null,
      priority: null,
      tradeId: null,
      teamId: null,
      leadId: null,
      supervisorId: null,
      estimateMinor: null,
      shares: [],
    }
    for (const kind of ORDER_KINDS) {
      const none = { ...bare, kind, rules: { ...whole.rules, completeness: { ...DEFAULT_RULES.completeness, [kind]: [] } } }
      expect(completeForApproval(none)).toHaveLength(ALWAYS_NEEDED.length)
      const all = { ...bare, kind, rules: { ...whole.rules, completeness: { ...DEFAULT_RULES.completeness, [kind]: COMPLETENESS_LINES } } }
      const lines = completeForApproval(all)
      expect(lines).toHaveLength(COMPLETENESS_LINES.length)
      expect(lines.every((line) => line.field && line.sentence.endsWith('.'))).toBe(true)
    }
  })

  test('a hazard is said when there is none, or when both halves are', () => {
    const asked = (said: Partial<OrderFacts>) =>
      completeForApproval({ ...whole, ...said, rules: { ...whole.rules, completeness: { ...DEFAULT_RULES.completeness, repair: ['hazards'] } } }).length
    expect(asked({ hazardSeverity: null })).toBe(1)
    expect(asked({ hazardSeverity: 'critical', hazardLikelihood: null })).toBe(1)
    expect(asked({ hazardSeverity: 'critical', hazardLikelihood: 'remote' })).toBe(0)
    expect(asked({ hazardSeverity: 'none' })).toBe(0)
  })
})

describe('who has to agree', () => {
  const two: ApprovalRule = { when: { amountFromMinor: 5_000 }, asks: [{ accountId: 4 }, { accountId: 5 }], inOrder: true }
  const asks = (rules: ApprovalRule[], facts: Partial<OrderFacts> = {}, consents: Parameters<typeof neededAsks>[2] = []) =>
    neededAsks({ ...whole, ...facts }, rules, consents, names).map(({ position, kind, accountId }) => `${position} ${kind} ${accountId ?? '-'}`)

  test('without rules, somebody whose limit covers it; with rules, those too, the limit last', () => {
    expect(asks([])).toEqual(['1 limit -'])
    expect(asks([two])).toEqual(['1 person 4', '2 person 5', '3 limit -'])
    expect(asks([{ ...two, asks: [{ accountId: 4 }] }])).toEqual(['1 person 4', '2 limit -'])
    expect(asks([{ ...two, inOrder: false }])).toEqual(['1 person 4', '1 person 5', '1 limit -'])
    expect(asks([two], { estimateMinor: 4_999 })).toEqual(['1 limit -'])
  })

  test('whoever supervises it is a person by then; the same person is asked once, at their last turn', () => {
    expect(asks([{ when: {}, asks: ['supervisor'], inOrder: false }], { supervisorId: 8 })).toEqual(['1 person 8', '1 limit -'])
    expect(asks([two, { when: {}, asks: [{ accountId: 5 }], inOrder: false }])).toEqual(['1 person 4', '2 person 5', '3 limit -'])
  })

  test('a payer consents above their amount, counted on their share', () => {
    const consent = { payerId: 1, payerName: '5100 Fish', accountId: 9, aboveMinor: 4_000 }
    const halves = [
      { payerId: 1, shareBp: 4_000 },
      { payerId: 2, shareBp: 6_000 },
    ]
    expect(asks([], {}, [consent])).toEqual(['1 consent 9', '1 limit -'])
    expect(asks([], { shares: halves }, [consent])).toEqual(['1 limit -'])
    expect(asks([], { shares: [{ payerId: 2, shareBp: 10_000 }] }, [consent])).toEqual(['1 limit -'])
  })

  test('rules and asks read as sentences', () => {
    expect(approvalRuleSentence(two, names)).toBe('Orders from 50.00 need the agreement of Person 4, then Person 5.')
    expect(approvalRuleSentence({ when: {}, asks: ['supervisor', { accountId: 4 }], inOrder: false }, names)).toBe(
      'All orders need the agreement of whoever supervises it and Person 4.',
    )
    expect(neededAsks(whole, [two], [], names).map((ask) => ask.why)).toEqual([
      'Person 4 agrees to every order from 50.00.',
      'Person 5 agrees to every order from 50.00.',
      'Somebody whose limit covers 100.00 approves it.',
    ])
  })

  const ask = (position: number, mine: boolean, decided = false, kind: OpenAsk['kind'] = 'person'): OpenAsk => ({
    id: position * 10 + Number(mine),
    position,
    kind,
    why: '',
    who: mine ? 'me' : `other ${position}`,
    decided,
    mine,
  })

  test('one approval gives all that is mine until somebody else has to go first', () => {
    expect(settledBy([ask(1, true), ask(2, true), ask(3, true)])).toHaveLength(3)
    expect(settledBy([ask(1, true), ask(1, false), ask(2, true)])).toHaveLength(1)
    expect(settledBy([ask(1, false), ask(2, true)])).toHaveLength(0)
    expect(openAfter([ask(1, false, true), ask(2, true)])).toHaveLength(0)
  })

  test('not my turn, not asked, or over my limit: each says so', () => {
    const facing = (list: OpenAsk[], limit: number | null = 250_000) => myTurn({ ...whole, state: 'to_approve', approvalLimitMinor: limit, asks: list })
    expect(facing([ask(1, false), ask(2, true)])[0]!.sentence).toBe('other 1 agrees first; then it is your turn.')
    expect(facing([ask(1, false)])[0]!.sentence).toBe('It waits for other 1, not for you.')
    expect(facing([ask(1, false, false, 'limit')], 9_999)[0]!.code).toBe('over_limit')
    expect(facing([ask(1, false, false, 'limit')], null)[0]!.code).toBe('not_an_approver')
    expect(facing([ask(1, true)])).toEqual([])
  })

  test('an order with open agreements stays where it is, and is ready only after the last', () => {
    const facts = (list: OpenAsk[]): OrderFacts => ({ ...whole, state: 'to_approve', asks: list })
    expect(moveOrder(facts([ask(1, true), ask(2, false)]), 'approve', null)).toBe('to_approve')
    expect(moveOrder(facts([ask(1, true, true), ask(2, true)]), 'approve', null)).toBe('ready')
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 1, max: 3 }), fc.boolean(), fc.boolean()), { minLength: 1, maxLength: 6 }), (list) => {
        const asked = list.map(([position, mine, decided], id) => ({ ...ask(position, mine, decided), id }))
        const settled = settledBy(asked)
        // Nothing that is somebody else's, nothing twice, and nothing behind an open one of somebody else.
        for (const one of settled) {
          expect(one.mine && !one.decided).toBe(true)
          expect(asked.some((other) => !other.decided && !other.mine && other.position < one.position)).toBe(false)
        }
      }),
    )
  })
})

describe('who is told', () => {
  test('each once, by the rules that hold for the order', () => {
    const rules = [...DEFAULT_RULES.escalations, { at: 'past' as const, when: { priorities: ['urgent' as const] }, tell: ['lead' as const, { accountId: 3 }] }]
    expect(toTell(rules, 'past', { ...whole, priority: 'urgent' })).toEqual(['lead', 'supervisor', { accountId: 3 }])
    expect(toTell(rules, 'past', whole)).toEqual(['lead', 'supervisor'])
    expect(toTell(rules, 'close', whole)).toEqual([])
  })

  test('a rule is a sentence', () => {
    expect(escalationSentence(DEFAULT_RULES.escalations[1]!, names)).toBe(
      'When an order is past its target, whoever leads it and whoever supervises it hear of it.',
    )
    expect(escalationSentence({ at: 'close', when: { placeId: 2 }, tell: [{ accountId: 3 }] }, names)).toBe(
      'When an order in place 2 is close to its target, Person 3 hears of it.',
    )
  })
})

test('a lead is not finished while a member is open, and the sentence names it', () => {
  const reasons = orderMoveReasons({ ...whole, state: 'on_job', openMembers: ['W-7', 'W-8'] }, 'finish')
  expect(reasons).toEqual([{ code: 'members_open', sentence: 'It leads W-7, W-8, which are not over: say first what becomes of them.', field: 'members' }])
})
