import { frequencyOf, ruleSays } from '#core/preventive'

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
