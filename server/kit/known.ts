import { and, eq, inArray, isNull, or } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import { Refusal } from '#core/kit'
import type { Reason } from '#core/kit'
import { accounts, assets, categories, payers, people, places, sites, teams, technicians, trades, vendors } from '../tables'
import type { Reader } from './database'
import { maySee, openHolders, withinSites } from './who'
import type { Asker } from './who'

/** Where an id is looked for: the site it has to belong to, or those of the person asking. */
export interface Where {
  siteId: number
  who: Pick<Asker, 'siteIds'>
}

interface Kind {
  sentence: string
  /** Those of these ids that are there, in use, and of the site. */
  find: (db: Reader, ids: number[], where: Where) => Promise<{ id: number }[]>
}

const rowsOf =
  (table: MySqlTable & { id: MySqlColumn }, fits: (where: Where) => SQL | undefined = () => undefined): Kind['find'] =>
  (db, ids, where) =>
    db
      .select({ id: table.id })
      .from(table)
      .where(and(inArray(table.id, ids), fits(where))) as Promise<{ id: number }[]>

const KINDS = {
  place: { sentence: 'Choose a place from the list.', find: rowsOf(places, ({ siteId }) => and(eq(places.siteId, siteId), isNull(places.retiredAt))) },
  asset: { sentence: 'Choose an asset from the list.', find: rowsOf(assets, ({ siteId }) => and(eq(assets.siteId, siteId), isNull(assets.retiredAt))) },
  /** Somebody of one of the asker’s sites: people report what they see elsewhere, too. */
  person: { sentence: 'Choose a person from the list.', find: rowsOf(people, ({ who }) => and(withinSites(who, people.siteId), isNull(people.retiredAt))) },
  category: { sentence: 'Choose a category from the list.', find: rowsOf(categories, () => isNull(categories.retiredAt)) },
  trade: { sentence: 'Choose a trade from the list.', find: rowsOf(trades) },
  team: { sentence: 'Choose a team from the list.', find: rowsOf(teams, ({ siteId }) => and(eq(teams.siteId, siteId), isNull(teams.retiredAt))) },
  vendor: { sentence: 'Choose a vendor from the list.', find: rowsOf(vendors, () => isNull(vendors.retiredAt)) },
  payer: { sentence: 'Choose a payer from the list.', find: rowsOf(payers, () => isNull(payers.retiredAt)) },
  /** Somebody with an open account who works at the site. */
  account: {
    sentence: 'Choose a person from the list: somebody who works at this site.',
    find: (db, ids, { siteId }) => openHolders(db, 'self.read', siteId, ids),
  },
  /** Somebody who can agree to orders of the site. */
  approver: {
    sentence: 'Choose somebody who approves orders of this site; nobody else could decide.',
    find: (db, ids, { siteId }) => openHolders(db, 'orders.approve', siteId, ids),
  },
  technician: {
    sentence: 'Choose technicians from the list.',
    find: (db, ids, { siteId, who }) =>
      db
        .select({ id: technicians.id })
        .from(technicians)
        .innerJoin(accounts, eq(accounts.id, technicians.accountId))
        .innerJoin(people, eq(people.id, accounts.personId))
        .where(and(inArray(technicians.id, ids), isNull(accounts.disabledAt), or(eq(people.siteId, siteId), withinSites(who, people.siteId)))),
  },
} satisfies Record<string, Kind>

export type KnownKind = keyof typeof KINDS
type Asked = Record<string, readonly [KnownKind, number | readonly (number | null | undefined)[] | null | undefined]>

/**
 * The one check of ids that come in: each is there, of the right kind, still in use, and of the site.
 * Nothing given is nothing asked.
 *
 * @example await mustKnow(tx, { siteId: order.siteId, who }, { placeId: ['place', input.placeId] })
 * @throws Refusal with the field of every id that is not
 */
export async function mustKnow(db: Reader, where: Where, asked: Asked): Promise<void> {
  const reasons: Reason[] = []
  for (const [field, [kind, given]] of Object.entries(asked)) {
    const ids = [...new Set([given].flat().filter((id) => id !== null && id !== undefined))] as number[]
    if (!ids.length) continue
    const { sentence, find } = KINDS[kind]
    if ((await find(db, ids, where)).length < ids.length) reasons.push({ code: `${kind}_unknown`, sentence, field })
  }
  if (reasons.length) throw new Refusal(reasons)
}

/** The site an entry is made for. @throws Refusal at `field` when there is none, or the person does not act there */
export async function mySite(db: Reader, who: Asker, siteId: number, field = 'siteId') {
  const [site] = maySee(who, siteId) ? await db.select().from(sites).where(eq(sites.id, siteId)) : []
  if (!site) throw new Refusal([{ code: 'site_unknown', sentence: 'Choose one of your sites.', field }])
  return site
}
