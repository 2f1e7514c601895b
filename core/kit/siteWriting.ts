/** How a site writes numbers, days and times, whatever the language of the machine. */
export interface SiteWriting {
  /** A BCP 47 tag of `WRITINGS`. */
  locale: string
  /** Hours of the day: 14:30 or 2:30 pm. */
  clock: 24 | 12
  /** The first day of a week, ISO 8601: 1 is Monday, 7 is Sunday. */
  weekFrom: 1 | 6 | 7
}

/**
 * What can be chosen. The words are English everywhere; order and signs are those of the place (Unicode CLDR, as the
 * machine's Intl holds it).
 */
export const WRITINGS = ['en-IE', 'en-GB', 'en-DE', 'en-CH', 'en-NL', 'en-SE', 'en-US', 'en-CA', 'en-AU', 'en-NZ', 'en-ZA', 'en-IN'] as const

export const WRITING_NAMES: Record<(typeof WRITINGS)[number], string> = {
  'en-IE': 'Ireland',
  'en-GB': 'United Kingdom',
  'en-DE': 'Germany',
  'en-CH': 'Switzerland',
  'en-NL': 'Netherlands',
  'en-SE': 'Sweden',
  'en-US': 'United States',
  'en-CA': 'Canada',
  'en-AU': 'Australia',
  'en-NZ': 'New Zealand',
  'en-ZA': 'South Africa',
  'en-IN': 'India',
}

/** What a site starts with. */
export const USUAL_WRITING: SiteWriting = { locale: 'en-IE', clock: 24, weekFrom: 1 }

/** Whether a short date of the locale begins with the month: 4/5 is the fifth of April. */
export function isMonthFirst(locale: string): boolean {
  const parts = new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'numeric' }).formatToParts(new Date(0)).map((part) => part.type)
  return parts.indexOf('month') < parts.indexOf('day')
}
