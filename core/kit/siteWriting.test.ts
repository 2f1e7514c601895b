import { isMonthFirst, readDay, readMoment, USUAL_WRITING, WRITING_NAMES, WRITINGS } from '.'

test('every way of writing is known to the machine and has a name', () => {
  expect(Intl.DateTimeFormat.supportedLocalesOf([...WRITINGS])).toEqual([...WRITINGS])
  expect(Object.keys(WRITING_NAMES)).toEqual([...WRITINGS])
  expect(WRITINGS).toContain(USUAL_WRITING.locale)
})

// CLDR 44, yMd of each locale: month first in the United States alone of these.
test.each(WRITINGS.map((locale) => [locale, locale === 'en-US'] as const))('%s: a short date begins with the month: %s', (locale, first) => {
  // Canada and South Africa write the year first and the month before the day.
  expect(isMonthFirst(locale)).toBe(first || ['en-CA', 'en-ZA'].includes(locale))
})

test('what a site writes is read again as it was written, in every way', () => {
  const now = '2026-11-24T10:40'
  for (const locale of WRITINGS) {
    const day = new Intl.DateTimeFormat(locale, { timeZone: 'UTC', weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' }).format(
      new Date('2026-12-04T00:00:00Z'),
    )
    const time = (hour12: boolean) =>
      new Intl.DateTimeFormat(locale, { timeZone: 'UTC', hour: '2-digit', minute: '2-digit', hour12 }).format(new Date('2026-12-04T15:05:00Z'))
    expect([locale, readDay(day, { now })]).toEqual([locale, { value: '2026-12-04' }])
    expect([locale, readMoment(`${day}, ${time(false)}`, { now })]).toEqual([locale, { value: '2026-12-04T15:05' }])
    expect([locale, readMoment(`${day}, ${time(true)}`, { now })]).toEqual([locale, { value: '2026-12-04T15:05' }])
  }
})
