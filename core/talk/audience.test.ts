import { AUDIENCES, hears, reachOf, sayReasons, SPEAKERS } from './audience'

const listener = (is: (typeof SPEAKERS)[number], visitId: number | null = null) => ({ is, visitId })

test('who reads what: the whole table, written out by hand', () => {
  const read = (audience: (typeof AUDIENCES)[number]) =>
    [listener('desk'), listener('crew', 1), listener('vendor', 7), listener('vendor', 8), listener('reporter')].map((one) =>
      hears(one, { audience, visitId: audience === 'vendor' ? 7 : null }),
    )
  expect(read('ours')).toEqual([true, true, false, false, false])
  expect(read('vendor')).toEqual([true, false, true, false, false])
  expect(read('reporter')).toEqual([true, true, false, false, true])
})

test('who writes to whom, and why not', () => {
  expect(SPEAKERS.map((one) => reachOf(one))).toEqual([['ours', 'vendor', 'reporter'], ['ours', 'reporter'], ['vendor'], ['reporter']])
  const codes = (...all: Parameters<typeof sayReasons>) => sayReasons(...all).map(({ code }) => code)
  expect(codes('crew', 'reporter', { reached: 1, over: false })).toEqual([])
  expect(codes('crew', 'reporter', { reached: 0, over: false })).toEqual(['no_address'])
  expect(codes('crew', 'ours', { reached: 0, over: false })).toEqual([])
  expect(codes('crew', 'vendor', { reached: 1, over: false })).toEqual(['not_theirs'])
  expect(codes('vendor', 'reporter', { reached: 1, over: false })).toEqual(['not_theirs'])
  expect(codes('desk', 'ours', { reached: 0, over: true })).toEqual(['order_over'])
})
