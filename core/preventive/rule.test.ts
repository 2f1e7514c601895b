import { firstFrom, frequencyOf, ruleOf, ruleSays } from '#core/preventive'

test('rules of RFC 5545 (section 3.8.5.3) in words, their own words where they are told otherwise', () => {
  expect(['FREQ=DAILY', 'FREQ=WEEKLY;INTERVAL=2', 'INTERVAL=3;FREQ=MONTHLY', 'FREQ=YEARLY;INTERVAL=1;BYMONTH=5'].map(ruleSays)).toEqual([
    'every day',
    'every 2 weeks',
    'every 3 months',
    'every year',
  ])
  expect(ruleSays('FREQ=HOURLY')).toBe('FREQ=HOURLY')
  expect(frequencyOf('')).toBeNull()
})

test('a plain rule comes round from its start; the 31st is not lost on the way through short months', () => {
  // RFC 5545, section 3.8.5.3: every 10 days from 2 September 1997 gives 2, 12, 22 September, 2, 12 October.
  const tenth = (day: string) => firstFrom('FREQ=DAILY;INTERVAL=10', '1997-09-02', day)
  expect(['1997-09-01', '1997-09-02', '1997-09-03', '1997-09-23', '1997-10-03'].map(tenth)).toEqual([
    '1997-09-02',
    '1997-09-02',
    '1997-09-12',
    '1997-10-02',
    '1997-10-12',
  ])
  expect(ruleOf(3, 'month')).toBe('FREQ=MONTHLY;INTERVAL=3')
  expect(firstFrom('FREQ=MONTHLY;INTERVAL=1', '2026-01-31', '2026-03-01')).toBe('2026-03-31')
  expect(firstFrom(ruleOf(1, 'year'), '2024-02-29', '2026-03-01')).toBe('2027-02-28')
  expect(firstFrom('FREQ=HOURLY', '2026-01-01', '2026-01-02')).toBeNull()
})
