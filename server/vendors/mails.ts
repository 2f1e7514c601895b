import { eq } from 'drizzle-orm'
import { stationOf } from '#core/orders'
import { windowSays } from '#core/windows'
import { tellDeclined, tellVendor, whoSent } from '#server/dispatch'
import { mail, notice } from '#server/kit'
import type { Mails, Telling } from '#server/kit'
import { orderOf } from '#server/orders'
import { vendors } from '../tables'

type Told = Partial<{ visitId: number; vendorId: number; start: string; end: string; vendor: string }>
const factsIn = ({ event }: Telling): Told => (event.details ?? {}) as Told

/** Who sent them and who leads the order; the mailbox of the desk where neither is there any more. */
async function tellDesk(telling: Telling, sentence: string, byMail: 'mail' | 'notice'): Promise<void> {
  const { tx, event, service } = telling
  const { order, site } = await orderOf(telling)
  const whom = await whoSent(tx, order)
  await notice(
    telling,
    whom.map(({ id }) => id),
    sentence,
  )
  if (byMail === 'notice') return
  const text = [
    sentence,
    ...(event.reason ? ['', `“${event.reason}”`] : []),
    '',
    order.summary,
    '',
    `${service.publicUrl()}/desk/${stationOf(order.state)}/order/${order.id}`,
  ].join('\n')
  for (const email of whom.length ? whom.map((one) => one.email) : [site.deskEmail]) await mail(telling, event.kind, email, sentence.slice(0, 180), text)
}

async function nameOf(telling: Telling): Promise<string> {
  const { vendor, vendorId } = factsIn(telling)
  if (vendor) return vendor
  const [row] = await telling.tx
    .select({ name: vendors.name })
    .from(vendors)
    .where(eq(vendors.id, vendorId ?? 0))
  return row?.name ?? 'The vendor'
}

/** What the desk hears of vendors who answer or do not, and vendors of the desk. */
export const vendorMails = {
  'vendor.accept': async (telling) => {
    const { order } = await orderOf(telling)
    await tellDesk(telling, `${await nameOf(telling)} comes for ${order.number}: ${order.summary}`, 'notice')
  },
  'vendor.propose': async (telling) => {
    const { start, end } = factsIn(telling)
    const { order, site } = await orderOf(telling)
    const when = start && end ? windowSays({ from: new Date(start), until: new Date(end) }, site.zone) : 'another time'
    await tellDesk(telling, `${await nameOf(telling)} proposes ${when} for ${order.number}`, 'mail')
  },
  'vendor.decline': async (telling) => {
    const { order } = await orderOf(telling)
    await tellDesk(telling, `${await nameOf(telling)} does not come for ${order.number}`, 'mail')
    await tellDeclined(telling, factsIn(telling).visitId ?? 0)
  },
  'vendor.keepTime': (telling) => tellVendor(telling, factsIn(telling).visitId ?? null, 'The desk keeps to the time it has planned. Can you come then?'),
  'vendor.renew': (telling) => tellVendor(telling, factsIn(telling).visitId ?? null, 'Here is the new link you asked for; the one before has ended.'),
  'vendor.remind': (telling) => tellVendor(telling, factsIn(telling).visitId ?? null, 'We have not heard from you yet. Can you come?'),
  'vendor.silent': async (telling) => {
    const { order } = await orderOf(telling)
    await tellDesk(telling, `${await nameOf(telling)} has not answered for ${order.number}`, 'mail')
  },
} satisfies Mails
