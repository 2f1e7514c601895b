import { BULK_ORDER_MOVES, BULK_ORDER_RULES, BULK_REQUEST_RULES } from '#core/lists'

test('what many at once can be taken back by, and as what it comes back', () => {
  const back = Object.fromEntries(BULK_ORDER_MOVES.flatMap((move) => (BULK_ORDER_RULES[move].back ? [[move, BULK_ORDER_RULES[move].back]] : [])))
  expect(back).toEqual({ hold: 'resume', cancel: 'reopen', discard: 'restore', archive: 'restore' })
  expect(BULK_ORDER_RULES.cancel.backAs).toBe('as drafts')
})

test('nothing that is posted is taken back in bulk; requests that were declined are not either', () => {
  expect([BULK_ORDER_RULES.post.back, BULK_ORDER_RULES.close.back, BULK_REQUEST_RULES.decline.back]).toEqual([undefined, undefined, undefined])
})

test('words are asked for where the single move asks for them', () => {
  const needed = BULK_ORDER_MOVES.filter((move) => BULK_ORDER_RULES[move].reason === 'required')
  expect(needed).toEqual(['sendBack', 'hold', 'reopen', 'cancel'])
  expect(BULK_REQUEST_RULES.decline).toMatchObject({ reason: 'required', may: 'requests.triage' })
})
