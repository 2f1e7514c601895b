import { eq, sql } from 'drizzle-orm'
import { foldText } from '#core/kit'
import { METHOD_FIELDS } from '#core/methods'
import type { MethodFields } from '#core/methods'
import { takenBy } from '#server/registers'
import type { Keeper } from '#server/registers'
import { methods, orders } from '../tables'

/** How methods are kept; they serve every site. */
export const methodKeeper: Keeper<MethodFields> = {
  register: 'methods',
  table: methods,
  fields: METHOD_FIELDS,
  called: ({ code, name }) => ({ code, heading: name }),
  orders: ({ id }) => sql`exists (select 1 from order_method m where m.order_id = ${orders.id} and m.method_id = ${id})`,
  refuses: async (tx, after, before) =>
    after.code === before?.code
      ? []
      : takenBy(tx, { register: 'methods', table: methods, id: after.id, where: eq(methods.code, after.code), field: 'code', word: after.code }, (other) =>
          String(other.name),
        ),
  follows: (_tx, { code, name, note }) => Promise.resolve({ searchText: foldText(`${code} ${name} ${note ?? ''}`).slice(0, 400) }),
}
