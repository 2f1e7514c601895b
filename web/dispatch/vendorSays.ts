import type { VendorChoice } from '#contract/dispatch'
import { formatMinor } from '#core/kit'
import { dayOf } from '#web/kit'

/** What can be said of a vendor before choosing: papers, terms, how often they came when they said. */
export function vendorSays({ papers, punctuality, perHourMinor, callOutMinor }: VendorChoice): string {
  const { visits, onTime } = punctuality
  return [
    ...papers.filter(({ stands }) => stands === 'ended').map(({ what, until }) => `${what.toLowerCase()} ended ${dayOf(until!)}`),
    ...papers.filter(({ what, stands }) => what === 'Contract' && stands === 'in_force').map(() => 'contract'),
    ...(callOutMinor === null ? [] : [`call-out ${formatMinor(callOutMinor)}`]),
    ...(perHourMinor === null ? [] : [`${formatMinor(perHourMinor)} an hour`]),
    visits ? `on time ${onTime} of ${visits}` : 'no visits yet',
  ].join(', ')
}
