import { and, eq, inArray, isNull, or } from 'drizzle-orm'
import { STANDING_WORDS, stationOf, toTell } from '#core/orders'
import type { EscalationRole } from '#core/orders'
import { nobody } from '#server/kit'
import { factsOf } from './facts'
import { rulesOf } from './ruleBook'
import { accountRoles, accounts } from '../tables'
import { orderOf } from './orderOf'
import { mail, notice } from '#server/kit'
import type { Telling } from '#server/kit'

const ROLE: Partial<Record<EscalationRole, 'coordinator' | 'manager'>> = { coordinators: 'coordinator', managers: 'manager' }

/** A promise is close or past: those the site's rules name hear of it, inside and by mail. */
export async function tellOfTarget(telling: Telling): Promise<void> {
  const { tx, event, service } = telling
  const { order, place } = await orderOf(telling)
  const at = event.kind === 'order.past' ? 'past' : 'close'
  const { escalations } = await rulesOf(tx, order.siteId)
  const tell = toTell(escalations, at, await factsOf(tx, order, nobody, event.at))
  const people = new Set<number>()
  for (const one of tell) {
    if (typeof one !== 'string') people.add(one.accountId)
    else if (one === 'lead') people.add(order.leadId ?? order.createdBy ?? 0)
    else if (one === 'supervisor') people.add(order.supervisorId ?? 0)
    else for (const id of await holdersOf(telling, ROLE[one]!, order.siteId)) people.add(id)
  }
  const rows = await tx
    .select({ id: accounts.id, email: accounts.email })
    .from(accounts)
    .where(and(inArray(accounts.id, [...people, 0]), isNull(accounts.disabledAt)))
  const words = `${order.number} is ${STANDING_WORDS[at]}: ${order.summary}`
  await notice(
    telling,
    rows.map((row) => row.id),
    words,
  )
  const text = [
    words,
    '',
    `Where: ${place ? `${place.code} ${place.name}` : 'not given'}`,
    order.description,
    '',
    `${service.publicUrl()}/desk/${stationOf(order.state)}/order/${order.id}`,
  ]
  if (at === 'past') for (const row of rows) await mail(telling, 'past', row.email, words, text.join('\n'))
}

async function holdersOf({ tx }: Telling, role: 'coordinator' | 'manager', siteId: number): Promise<number[]> {
  const rows = await tx
    .select({ id: accountRoles.accountId })
    .from(accountRoles)
    .where(and(eq(accountRoles.role, role), or(isNull(accountRoles.siteId), eq(accountRoles.siteId, siteId))))
  return rows.map((row) => row.id)
}
