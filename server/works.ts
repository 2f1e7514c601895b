import { bookingWorks } from '#server/bookings'
import { closureWorks } from '#server/closures'
import { deviceWorks } from '#server/devices'
import { dayPlanWorks, sweepDayPlans } from '#server/dayplans'
import { documentWorks } from '#server/documents'
import { fieldWorks } from '#server/field'
import { Sweeper } from '#server/kit'
import type { Sweep, Works } from '#server/kit'
import { mailWorks } from '#server/mail'
import { orderWorks } from '#server/orders'
import { sweepSignIns } from '#server/people'
import { quoteWorks } from '#server/quotes'
import { sweepReporterLinks } from '#server/requests'
import { learnWays } from '#server/travel'
import { sweepSent } from '#server/uploads'
import { vendorWorks } from '#server/vendors'

/** What every room has done once an hour: removed what has had its time, learned what was logged. */
const SWEEPS: readonly Sweep[] = [sweepSignIns, sweepReporterLinks, sweepDayPlans, learnWays, sweepSent]

/** What every room keeps going, in the order in which it starts. */
export const WORKS: readonly Works[] = [
  mailWorks,
  orderWorks,
  documentWorks,
  bookingWorks,
  closureWorks,
  fieldWorks,
  deviceWorks,
  dayPlanWorks,
  vendorWorks,
  quoteWorks,
  (service) => [new Sweeper(service, SWEEPS)],
]
