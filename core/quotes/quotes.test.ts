import { compareQuotes, dueReasons, QUOTE_STATES, quoteRemindAt, whyClosed } from '#core/quotes'

const at = (iso: string) => new Date(iso)

test('prices beside each other: those that stand first, the cheapest of them, then who can begin sooner', () => {
  const row = (id: number, netMinor: number | null, validUntil: string | null = null, earliestAt: Date | null = null) => ({
    id,
    netMinor,
    validUntil,
    earliestAt,
  })
  const rows = [
    row(1, 900, '2026-11-22'),
    row(2, 1_000, '2026-11-23', at('2026-12-02T08:00:00Z')),
    row(3, 1_000, null, at('2026-12-01T08:00:00Z')),
    row(4, null),
    row(5, 1_250),
  ]
  expect(compareQuotes(rows, '2026-11-23').map(({ id, aboveMinor, lowest, lapsed }) => [id, aboveMinor, lowest, lapsed])).toEqual([
    [3, 0, true, false],
    [2, 0, true, false],
    [5, 250, false, false],
    [1, -100, false, true],
  ])
  expect(compareQuotes([row(1, 900, '2026-11-22')], '2026-11-23')).toMatchObject([{ aboveMinor: 0, lowest: false, lapsed: true }])
  expect(compareQuotes([], '2026-11-23')).toEqual([])
})

test('until when an answer may be due, and when who was asked is reminded', () => {
  const now = at('2026-11-23T10:30:00Z')
  expect([now, at('2026-11-23T10:30:01Z'), at('2027-11-25T00:00:00Z')].map((due) => dueReasons(due, now)[0]?.code ?? null)).toEqual([
    'in_the_past',
    null,
    'too_far',
  ])
  expect(quoteRemindAt(now, at('2026-11-25T10:30:00Z'))).toEqual(at('2026-11-24T10:30:00Z'))
})

test('who may still answer: as long as nobody is taken and the work is wanted', () => {
  expect(QUOTE_STATES.filter((state) => whyClosed(state, true) === null)).toEqual(['asked', 'priced', 'declined'])
  expect(QUOTE_STATES.filter((state) => whyClosed(state, false) === null)).toEqual([])
})
