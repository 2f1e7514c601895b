import { myTurn } from '#core/orders'
import type { OrderFacts } from '#core/orders'

/** Approving what one submitted oneself: refused, unless the site says that one's own limit is enough and it is. */
const ask = { kind: 'limit', position: 1, mine: true, decided: false, who: 'somebody', why: '', payerId: null, accountId: null }
const facts = (over: Partial<Pick<OrderFacts, 'submittedByMe' | 'ownLimitMinor' | 'approvalLimitMinor' | 'estimateMinor'>>, ownSubmissions: string) =>
  ({
    asks: [ask],
    approvalLimitMinor: 250_000,
    ownLimitMinor: 250_000,
    estimateMinor: 20_000,
    submittedByMe: true,
    rules: { ownSubmissions },
    ...over,
  }) as unknown as OrderFacts
const codes = (...given: Parameters<typeof facts>) => myTurn(facts(...given)).map(({ code, field }) => [code, field].filter(Boolean).join(' at '))

test('never, where the site says never, however small it is', () => {
  expect(codes({}, 'never')).toEqual(['own_submission'])
  expect(codes({ estimateMinor: 0 }, 'never')).toEqual(['own_submission'])
  expect(codes({ submittedByMe: false }, 'never')).toEqual([])
})

test('within the own limit, where the site allows that; a limit that was lent does not count', () => {
  expect(codes({ estimateMinor: 250_000 }, 'withinLimit')).toEqual([])
  expect(codes({ estimateMinor: 250_001 }, 'withinLimit')).toEqual(['own_submission at estimateMinor'])
  expect(codes({ ownLimitMinor: 10_000, approvalLimitMinor: 2_500_000 }, 'withinLimit')).toEqual(['own_submission at estimateMinor'])
  expect(codes({ ownLimitMinor: null, estimateMinor: 0 }, 'withinLimit')).toEqual(['own_submission at estimateMinor'])
  expect(codes({ estimateMinor: null }, 'withinLimit')).toEqual([])
  expect(myTurn(facts({ estimateMinor: 250_001 }, 'withinLimit'))[0]!.sentence).toBe(
    'You submitted it yourself, and your own limit does not cover it; somebody else approves it.',
  )
})
