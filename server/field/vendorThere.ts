import { sql } from 'drizzle-orm'
import { vendors, visits } from '../tables'

/** Who of a vendor is there, as they say, "of" their firm; the firm where they say nobody; null where no vendor is. */
export const vendorThere = sql<string>`coalesce(concat(${visits.thereName}, ' of ', ${vendors.name}), ${vendors.name})`
