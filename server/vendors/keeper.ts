import { eq, sql } from 'drizzle-orm'
import { readIban, VENDOR_FIELDS } from '#core/vendors'
import type { VendorFields } from '#core/vendors'
import type { Reason } from '#core/kit'
import { takenBy } from '#server/registers'
import type { Keeper } from '#server/registers'
import { orders, vendors } from '../tables'

/** How vendors are kept; they serve every site. */
export const vendorKeeper: Keeper<VendorFields> = {
  register: 'vendors',
  table: vendors,
  fields: VENDOR_FIELDS,
  called: ({ name }) => ({ code: null, heading: name }),
  orders: ({ id }) => sql`exists (select 1 from visit v where v.order_id = ${orders.id} and v.vendor_id = ${id} and v.state <> 'recalled')`,
  async refuses(tx, after, before) {
    const reasons: Reason[] =
      after.name === before?.name
        ? []
        : await takenBy(
            tx,
            { register: 'vendors', table: vendors, id: after.id, where: eq(vendors.name, after.name), field: 'name', word: after.name },
            () => 'another vendor',
          )
    if (after.iban && after.iban !== before?.iban && readIban(after.iban) === null)
      reasons.push({ code: 'iban', sentence: 'The check digits do not fit: compare it with the bill, digit by digit.', field: 'iban' })
    return reasons
  },
  follows: (_tx, { iban }) => Promise.resolve({ iban: iban ? readIban(iban) : null }),
}
