import { eq, sql } from 'drizzle-orm'
import { PAYER_FIELDS } from '#core/ledger'
import type { PayerFields } from '#core/ledger'
import { takenBy } from '#server/registers'
import type { Keeper } from '#server/registers'
import { orders, payers, requests } from '../tables'

/** How payers are kept; they serve every site. */
export const payerKeeper: Keeper<PayerFields> = {
  register: 'payers',
  table: payers,
  fields: PAYER_FIELDS,
  called: ({ code, name }) => ({ code, heading: name }),
  orders: ({ id }) => sql`exists (select 1 from order_share s where s.order_id = ${orders.id} and s.payer_id = ${id})`,
  requests: ({ id }) => eq(requests.payerId, id),
  refuses: async (tx, after, before) =>
    after.code === before?.code
      ? []
      : takenBy(tx, { register: 'payers', table: payers, id: after.id, where: eq(payers.code, after.code), field: 'code', word: after.code }, (other) =>
          String(other.name),
        ),
}
