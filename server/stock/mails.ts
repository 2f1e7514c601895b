import { and, eq } from 'drizzle-orm'
import { mail, notice } from '#server/kit'
import type { Mails } from '#server/kit'
import { orderOf } from '#server/orders'
import { accounts, people, purchases, sites, vendors } from '../tables'

/** The vendor is sent what is ordered; who leads an order hears that what it waits for came. */
export const stockMails = {
  'stock.order': async (telling) => {
    const { event, tx } = telling
    const { purchaseId } = event.details as { purchaseId: number }
    const [found] = await tx
      .select({ purchase: purchases, vendor: vendors, site: sites })
      .from(purchases)
      .innerJoin(vendors, eq(vendors.id, purchases.vendorId))
      .innerJoin(sites, eq(sites.id, purchases.siteId))
      .where(eq(purchases.id, purchaseId))
    if (!found) return
    const { purchase, vendor, site } = found
    const text = [
      `Dear ${vendor.contactName ?? vendor.name},`,
      '',
      `please deliver what stands in our purchase order ${purchase.number}, which goes along as a PDF.`,
      ...(purchase.expectedOn ? ['', `We expect it on ${purchase.expectedOn}.`] : []),
      ...(purchase.note ? ['', purchase.note] : []),
      '',
      `${event.actorName}, ${site.name}`,
      site.deskEmail,
    ].join('\n')
    const more = { from: site.deskEmail, fileId: purchase.fileId, fileName: `${purchase.number}.pdf` }
    await mail(telling, 'stock.order', vendor.email, `Purchase order ${purchase.number}, ${site.name}`, text, more)
  },
  'stock.arrived': async (telling) => {
    const { event, tx, service } = telling
    const { parts, goesOn } = event.details as { parts: string; goesOn: boolean }
    const { order } = await orderOf(telling)
    const whom = [...new Set([order.leadId ?? order.createdBy].filter((id) => id !== null))]
    const sentence = `${order.number} ${goesOn ? 'goes on' : 'stays on hold'}: ${parts} came and is reserved for it.`
    await notice(
      telling,
      whom.filter((id) => id !== event.actorId),
      sentence,
    )
    const lead =
      order.leadId === null
        ? undefined
        : (
            await tx
              .select({ email: people.email })
              .from(accounts)
              .innerJoin(people, eq(people.id, accounts.personId))
              .where(and(eq(accounts.id, order.leadId)))
          )[0]
    if (lead?.email && order.leadId !== event.actorId)
      await mail(
        telling,
        'stock.arrived',
        lead.email,
        sentence.slice(0, 180),
        `${sentence}\n\n${order.number} ${order.summary}\n${service.publicUrl()}/desk/planning/order/${order.id}\n`,
      )
  },
} satisfies Mails
