import { eq } from 'drizzle-orm'
import * as contract from '#contract/insight'
import { maySee, notFound, query } from '#server/kit'
import { orders, requests } from '../tables'

/** Changes no row: who shows what is kept in memory, for as long as they do. */
export default query(contract.showPresence, async ({ db, who, input, now, service }) => {
  const { screen, type, id } = input
  const me = { accountId: who.accountId!, name: who.name }
  if (!type || !id) {
    service.presence.show(screen, me, null, now)
    return { others: [] }
  }
  const table = type === 'order' ? orders : requests
  const [row] = await db.select({ siteId: table.siteId }).from(table).where(eq(table.id, id))
  if (!row || !maySee(who, row.siteId)) throw notFound(type)
  service.presence.show(screen, me, { type, id, siteId: row.siteId }, now)
  return { others: service.presence.others({ type, id }, who.accountId!, now) }
})
