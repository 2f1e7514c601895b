import { eq } from 'drizzle-orm'
import * as contract from '#contract/cobie'
import { delivery, inThread, maySee, notFound } from '#server/kit'
import { accounts, people, places } from '../tables'
import type { WriteCobieJob } from './writeCobie.worker'

const write = inThread<WriteCobieJob, Uint8Array>('writeCobie.worker', { mostHeapMb: 256, idleMs: 0 })

export default delivery(contract.giveCobie, async ({ db, who, input, now, service, response }) => {
  const [building] = await db.select().from(places).where(eq(places.id, input.id))
  if (!building || !['building', 'grounds'].includes(building.kind) || !maySee(who, building.siteId)) throw notFound('building')
  const [me] = await db
    .select({ email: people.email })
    .from(accounts)
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(eq(accounts.id, who.accountId!))
  const content = await write({
    databaseUrl: service.config.databaseUrl,
    buildingId: building.id,
    by: { email: me?.email ?? who.name },
    now: now.toISOString().slice(0, 19),
  })
  response.attachment(`${building.code}-cobie.xlsx`.replace(/[^\w.-]/g, '_')).type('application/vnd.openxmlformats-officedocument.spreadsheetml.sheet')
  response.end(Buffer.from(content))
})
