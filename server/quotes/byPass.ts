import { and, eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/vendors'
import { refuse } from '#core/kit'
import { passCommand } from '#server/vendors'
import { quotes } from '../tables'
import { answered } from './page'
import { needsPrice } from './quotes'

/** A price a vendor names on the job itself, before work begins: asked for or not, it stands beside the others. */
export const namePassPrice = passCommand(contract.namePassPrice, async ({ tx, input, visit, order, vendor, service, at }) => {
  if (visit.state !== 'planned' || !needsPrice(order)) refuse('begun', 'You have begun already: what it costs goes on the bill.')
  const { netMinor, taxBp } = input
  const open = and(eq(quotes.orderId, order.id), eq(quotes.vendorId, vendor.id), inArray(quotes.state, ['asked', 'priced', 'declined', 'taken']))
  const [before] = await tx.select().from(quotes).where(open).limit(1).for('update')
  if (before?.state === 'taken') refuse('taken', 'Your price was agreed to already. Call the desk to change it.')
  const quote = before ?? (await unasked())
  await answered(tx, { quote, order, vendor: vendor.name }, at, { state: 'priced', netMinor, taxBp, answer: input.note?.trim() || null })

  async function unasked() {
    const link = service.links.fresh('quote')
    const [made] = await tx
      .insert(quotes)
      .values({
        ...{ siteId: order.siteId, orderId: order.id, vendorId: vendor.id, state: 'asked', wanted: order.summary },
        ...{ askedAt: at, askedByName: vendor.name, dueAt: visit.plannedStart, nonce: link.nonce, tokenHash: link.hash, version: 1 },
      })
      .$returningId()
    const [row] = await tx.select().from(quotes).where(eq(quotes.id, made!.id))
    return row!
  }
})
