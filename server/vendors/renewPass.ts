import { and, eq, isNull } from 'drizzle-orm'
import * as contract from '#contract/vendors'
import { SEEN_IN_FIELD } from '#core/orders'
import { refuse } from '#core/kit'
import { maskedAddress } from '#core/vendors'
import { newPassLink } from '#server/dispatch/records'
import { command, ProblemReply, recordEvent, sha256 } from '#server/kit'
import { orders, vendorPasses, vendors, visits } from '../tables'

/** A link is asked for anew once an hour at most: nobody fills a mailbox with it (our own choice, no source). */
const AGAIN_MS = 3_600_000

/** A new link goes to the address of the vendor, whoever asks: what an ended link opened is not shown for it. */
export default command(contract.renewPass, async ({ tx, input, now, service }) => {
  const [found] = await tx
    .select({ pass: vendorPasses, visit: visits, order: orders, vendor: vendors })
    .from(vendorPasses)
    .innerJoin(visits, eq(visits.id, vendorPasses.visitId))
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .innerJoin(vendors, eq(vendors.id, visits.vendorId))
    .where(and(eq(vendorPasses.tokenHash, sha256(input.token)), isNull(vendorPasses.revokedAt)))
    .for('update')
  const open = found && found.visit.state !== 'recalled' && (SEEN_IN_FIELD.includes(found.order.state) || found.visit.state === 'ended')
  if (!open) throw new ProblemReply(404, 'The link does not work', 'It was taken back, or was not copied whole. Call the desk that sent it.')
  const { pass, visit, order, vendor } = found
  if (pass.expiresAt > now) refuse('works', 'This link works still.')
  if (pass.renewedAt && now.getTime() - pass.renewedAt.getTime() < AGAIN_MS)
    refuse('sent_already', `A new link was sent to ${maskedAddress(vendor.email)} a short while ago. Look there, or call the desk.`)
  await newPassLink(tx, pass.id, service.links.fresh('pass'), now)
  const told = { visitId: visit.id, vendorId: vendor.id }
  await recordEvent(tx, { accountId: null, name: vendor.name }, now, {
    kind: 'vendor.renew',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    details: told,
  })
  return { sentTo: maskedAddress(vendor.email) }
})
