import { and, eq, inArray, isNull } from 'drizzle-orm'
import { DateTime } from 'luxon'
import { stationOf } from '#core/orders'
import { mail, notice } from '#server/kit'
import type { Mails, Telling } from '#server/kit'
import { orderOf } from '#server/orders'
import { accounts, quotes, vendors } from '../tables'

type Told = Partial<{ quoteId: number; vendor: string; over: number[] }>
const factsIn = ({ event }: Telling): Told => (event.details ?? {}) as Told

const quotesIn = ({ tx }: Telling, ids: readonly number[]) =>
  tx
    .select({ quote: quotes, vendor: vendors })
    .from(quotes)
    .innerJoin(vendors, eq(vendors.id, quotes.vendorId))
    .where(inArray(quotes.id, [0, ...ids]))

/** A vendor is asked for a price, or reminded of it, with the link by which they answer. */
async function ask(telling: Telling, opening: string): Promise<void> {
  const [found] = await quotesIn(telling, [factsIn(telling).quoteId ?? 0])
  if (found?.quote.state !== 'asked') return
  const { quote, vendor } = found
  const { order, site, place } = await orderOf(telling)
  const due = DateTime.fromJSDate(quote.dueAt, { zone: site.zone }).setLocale('en-IE').toFormat('cccc d LLLL, HH:mm')
  const text = [
    `Dear ${vendor.contactName ?? vendor.name},`,
    '',
    opening,
    '',
    quote.wanted,
    ...(place ? ['', `Where: ${[place.name, place.within].filter(Boolean).join(', ')}`] : []),
    '',
    `Name your price, or say that you have none, by ${due}:`,
    `${telling.service.publicUrl()}/q/${telling.service.links.again('quote', quote.nonce)}`,
    '',
    `${site.name}, ${site.deskPhone}`,
  ].join('\n')
  await mail(telling, telling.event.kind, vendor.email, `A price for ${order.number}, ${site.name}`.slice(0, 180), text, { from: site.deskEmail })
}

/** Vendors who need not come this time. */
async function tellOver(telling: Telling, ids: readonly number[], sentence: string): Promise<void> {
  const { order, site } = await orderOf(telling)
  for (const { quote, vendor } of await quotesIn(telling, ids)) {
    const text = [`Dear ${vendor.contactName ?? vendor.name},`, '', sentence, '', quote.wanted.split('\n')[0]!, '', `${site.name}, ${site.deskPhone}`].join(
      '\n',
    )
    await mail(telling, `over-${quote.id}`, vendor.email, `Your price for ${order.number}`, text, { from: site.deskEmail })
  }
}

/** Whoever asked, and whoever leads the order. */
async function tellDesk(telling: Telling, sentence: string, byMail: boolean): Promise<void> {
  const { order } = await orderOf(telling)
  const [found] = await quotesIn(telling, [factsIn(telling).quoteId ?? 0])
  const whom = await telling.tx
    .select({ id: accounts.id, email: accounts.email })
    .from(accounts)
    .where(and(inArray(accounts.id, [found?.quote.askedBy ?? 0, order.leadId ?? 0]), isNull(accounts.disabledAt)))
  await notice(
    telling,
    whom.map(({ id }) => id),
    sentence,
  )
  const text = [sentence, ...(telling.event.reason ? ['', `“${telling.event.reason}”`] : []), '', order.summary]
  const address = `${telling.service.publicUrl()}/desk/${stationOf(order.state)}/order/${order.id}`
  if (byMail) for (const { email } of whom) await mail(telling, telling.event.kind, email, sentence.slice(0, 180), [...text, '', address].join('\n'))
}

/** What vendors are asked and told of prices, and the desk of their answers. */
export const quoteMails = {
  'quote.ask': (telling) => ask(telling, 'we would like a price for this:'),
  'quote.remind': (telling) => ask(telling, 'we asked you for a price and have not heard from you yet:'),
  'quote.withdraw': (telling) => tellOver(telling, [factsIn(telling).quoteId ?? 0], 'we need no price from you any more for this:'),
  'quote.price': async (telling) => {
    const { order } = await orderOf(telling)
    await tellDesk(telling, `${factsIn(telling).vendor ?? 'A vendor'} named a price for ${order.number}: ${order.summary}`, false)
  },
  'quote.decline': async (telling) => {
    const { order } = await orderOf(telling)
    await tellDesk(telling, `${factsIn(telling).vendor ?? 'A vendor'} names no price for ${order.number}: ${telling.event.reason ?? ''}`, false)
  },
  'quote.take': async (telling) => {
    await tellOver(telling, [factsIn(telling).quoteId ?? 0], 'we take the price you named. The job comes with a mail of its own, with the time, for this:')
    await tellOver(telling, factsIn(telling).over ?? [], 'this time the work goes to somebody else. Thank you for your answer to this:')
  },
  'quote.silent': async (telling) => {
    const { order } = await orderOf(telling)
    await tellDesk(telling, `${factsIn(telling).vendor ?? 'A vendor'} has named no price for ${order.number} in time`, true)
  },
} satisfies Mails
