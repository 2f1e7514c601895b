import { sql } from 'drizzle-orm'
import { accounts, orders, people, technicians, vendors, visits } from '../tables'
import { liveVisit } from '#server/dispatch/records'

/** The names of those planned or present on an order, found with its row rather than in a second statement. */
export const whoIsOn = sql<string | null>`(
  select group_concat(coalesce(${people.name}, ${vendors.name}) order by ${visits.id} separator ', ')
  from ${visits}
  left join ${technicians} on ${technicians.id} = ${visits.technicianId}
  left join ${accounts} on ${accounts.id} = ${technicians.accountId}
  left join ${people} on ${people.id} = ${accounts.personId}
  left join ${vendors} on ${vendors.id} = ${visits.vendorId}
  where ${visits.orderId} = ${orders.id} and ${liveVisit})`
