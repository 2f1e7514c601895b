import { eq } from 'drizzle-orm'
import { editsOf } from '#server/registers'
import { mail, notice, openHolders } from '#server/kit'
import type { Mails } from '#server/kit'
import { accounts, documents, people, sites } from '../tables'

/** Who keeps what it is of hears of it here; who added it, by mail too, with the desk of the site. */
export const documentMails = {
  'document.ending': async (telling) => {
    const { event, tx, service } = telling
    const { title, documentId, until, called } = event.details as { title: string; documentId: number; until: string; called: string }
    const [found] = await tx
      .select({ document: documents, email: people.email, disabledAt: accounts.disabledAt })
      .from(documents)
      .innerJoin(accounts, eq(accounts.id, documents.addedBy))
      .innerJoin(people, eq(people.id, accounts.personId))
      .where(eq(documents.id, documentId))
    if (!found) return
    const { document, email, disabledAt } = found
    const all = await tx.select({ id: sites.id, deskEmail: sites.deskEmail }).from(sites)
    const there = event.siteId ? all.filter(({ id }) => id === event.siteId) : all
    const holders = await Promise.all(there.map(({ id }) => openHolders(tx, editsOf(document.on), id)))
    const sentence = `${title}, of ${called}, is valid until ${until}.`
    await notice(
      telling,
      holders.flat().map(({ id }) => id),
      sentence,
    )
    const address = `${service.publicUrl()}${document.on === 'orders' || document.on === 'requests' ? `/desk/${document.on === 'orders' ? 'planning/order' : 'triage/request'}/${document.recordId}` : `/registers/${document.on}/${document.recordId}`}`
    const text = `${sentence}\n\nSee to a newer one in time, and add it as a new version:\n${address}\n`
    const desks = event.siteId ? there.map(({ deskEmail }) => deskEmail) : []
    for (const to of new Set([...(email && !disabledAt ? [email] : []), ...desks])) await mail(telling, 'document.ending', to, `Ends soon: ${title}`, text)
  },
} satisfies Mails
