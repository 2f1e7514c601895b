import { and, asc, eq } from 'drizzle-orm'
import * as contract from '#contract/vendors'
import type { VendorReach } from '#contract/vendors'
import { anyKeeper, lockRecord, seenRecord } from '#server/registers'
import { can, command, mustKnow, query } from '#server/kit'
import type { Asker, Outgoing, Reader, Route, Tell, Tx } from '#server/kit'
import { refuse } from '#core/kit'
import { sites, trades, vendorContacts, vendorSites, vendorTrades } from '../tables'
import { vendorKeeper } from './keeper'

const keeper = anyKeeper(vendorKeeper)

async function reachOf(db: Reader, who: Asker, id: number): Promise<Outgoing<VendorReach>> {
  const vendor = await seenRecord(db, keeper, who, id)
  const [tradeRows, siteRows, contacts] = await Promise.all([
    db
      .select({ id: trades.id, name: trades.name })
      .from(vendorTrades)
      .innerJoin(trades, eq(trades.id, vendorTrades.tradeId))
      .where(eq(vendorTrades.vendorId, id))
      .orderBy(asc(trades.name)),
    db
      .select({ id: sites.id, name: sites.name })
      .from(vendorSites)
      .innerJoin(sites, eq(sites.id, vendorSites.siteId))
      .where(eq(vendorSites.vendorId, id))
      .orderBy(asc(sites.name)),
    db
      .select({ id: vendorContacts.id, name: vendorContacts.name, role: vendorContacts.role, email: vendorContacts.email, phone: vendorContacts.phone })
      .from(vendorContacts)
      .where(eq(vendorContacts.vendorId, id))
      .orderBy(asc(vendorContacts.name)),
  ])
  const whyNot = !can(who, 'registers.edit')
    ? 'Your role reads this and does not change it.'
    : vendor.retiredAt
      ? 'It is retired. Take it into use again to change it.'
      : null
  return { id, whyNot, trades: tradeRows, sites: siteRows, contacts }
}

/** The vendor, held for a change, which is told. @throws Refusal, ProblemReply 404 */
async function change(tx: Tx, who: Asker, id: number, tell: Tell, what: string): Promise<void> {
  const vendor = await lockRecord(tx, keeper, who, id)
  if (vendor.retiredAt) refuse('retired', 'It is retired. Take it into use again to change it.')
  await tell({ kind: 'register.beside', siteId: null, register: 'vendors', recordId: id, details: { what } })
}

const readReach = query(contract.readReach, ({ db, who, input }) => reachOf(db, who, input.id))

const editReach = command(contract.editReach, async ({ tx, who, input, tell }) => {
  const { id, tradeIds, siteIds } = input
  await mustKnow(tx, { siteId: who.homeSiteId ?? 0, who }, { tradeIds: ['trade', tradeIds] })
  if (siteIds?.length) {
    const known = (await tx.select({ id: sites.id }).from(sites)).map((site) => site.id)
    if (siteIds.some((siteId) => !known.includes(siteId))) refuse('site_unknown', 'Choose sites from the list.', 'siteIds')
  }
  await change(tx, who, id, tell, [tradeIds ? 'trades' : '', siteIds ? 'sites' : ''].filter(Boolean).join(', '))
  if (tradeIds) {
    await tx.delete(vendorTrades).where(eq(vendorTrades.vendorId, id))
    if (tradeIds.length) await tx.insert(vendorTrades).values(tradeIds.map((tradeId) => ({ vendorId: id, tradeId })))
  }
  if (siteIds) {
    await tx.delete(vendorSites).where(eq(vendorSites.vendorId, id))
    if (siteIds.length) await tx.insert(vendorSites).values(siteIds.map((siteId) => ({ vendorId: id, siteId })))
  }
  return reachOf(tx, who, id)
})

const saveContact = command(contract.saveContact, async ({ tx, who, input, tell }) => {
  const { id, name, role, email, phone } = input
  await change(tx, who, id, tell, `contact ${name}`)
  const values = { role: role || null, email: email || null, phone: phone || null }
  await tx
    .insert(vendorContacts)
    .values({ vendorId: id, name, ...values })
    .onDuplicateKeyUpdate({ set: values })
  return reachOf(tx, who, id)
})

const dropContact = command(contract.dropContact, async ({ tx, who, input, tell }) => {
  await change(tx, who, input.id, tell, 'contacts')
  await tx.delete(vendorContacts).where(and(eq(vendorContacts.id, input.itemId), eq(vendorContacts.vendorId, input.id)))
  return reachOf(tx, who, input.id)
})

export const reachRoutes: Route[] = [readReach, editReach, saveContact, dropContact]
