import { ASSET_EVENTS, moveTransfer } from '#core/assets'

const way = { from: 'LAN-305', to: 'HAT-01' }

test('a transfer is told with its way, and a loan with its end', () => {
  expect(ASSET_EVENTS['asset.ask'].about({ ...way, returnBy: null })).toBe('from LAN-305 to HAT-01')
  expect(ASSET_EVENTS['asset.ask'].about({ ...way, returnBy: '2026-12-24' })).toBe('from LAN-305 to HAT-01, on loan until 2026-12-24')
  for (const kind of ['asset.agree', 'asset.refuse', 'asset.withdraw'] as const) expect(ASSET_EVENTS[kind].about(way)).toBe('from LAN-305 to HAT-01')
  expect(ASSET_EVENTS['asset.giveBack'].about(way)).toBe('to LAN-305')
})

test('why a move of a transfer is refused is said in a sentence', () => {
  const facts = { kind: 'move' as const, state: 'asked' as const, askedByMe: true, answersThere: true, answersHere: true }
  const why = (over: object, move: Parameters<typeof moveTransfer>[1]) => moveTransfer({ ...facts, ...over }, move).reasons.map((reason) => reason.sentence)
  expect(why({}, 'agree')).toEqual(['You asked for it yourself; somebody else agrees.'])
  expect(why({ answersThere: false }, 'agree')).toEqual(['Whoever keeps the registers where it goes agrees to it.'])
  expect(why({}, 'refuse')).toEqual(['You asked for it yourself: withdraw it instead.'])
  expect(why({ answersThere: false }, 'refuse')).toEqual(['Whoever keeps the registers where it goes decides on it.'])
  expect(why({ askedByMe: false }, 'withdraw')).toEqual(['Whoever asked for it withdraws it.'])
  expect(why({ state: 'lent', answersThere: false, answersHere: false }, 'giveBack')).toEqual(['Whoever keeps the registers of either site records that.'])
  expect(why({ state: 'done' }, 'agree')).toEqual(['It is moved already.'])
  expect(why({ state: 'returned' }, 'giveBack')).toEqual(['It is returned already.'])
})
