import { eq } from 'drizzle-orm'
import { isOwnKind, listFieldsFor, ownListField, parseAsk } from '#core/lists'
import type { ListAsk, ListField, ListKind } from '#core/lists'
import { Refusal } from '#core/kit'
import { can } from '#server/kit'
import type { Asker, Db, Reader, Service } from '#server/kit'
import { ownFieldsOf } from '#server/own'
import { accounts, people, sites, technicians } from '../tables'
import { resolveOwn } from './own'
import type { Standpoint } from './standpoint'

async function standpointOf(db: Reader, who: Asker, now: Date): Promise<Standpoint> {
  const [row] = await db
    .select({ own: accounts.teamId, shift: technicians.teamId, zone: sites.zone })
    .from(accounts)
    .innerJoin(people, eq(people.id, accounts.personId))
    .innerJoin(sites, eq(sites.id, people.siteId))
    .leftJoin(technicians, eq(technicians.accountId, accounts.id))
    .where(eq(accounts.id, who.accountId!))
  return { accountId: who.accountId!, teamId: row!.own ?? row!.shift, siteIds: who.siteIds, zone: row!.zone, now }
}

/** The list an address asks for, and from where it is looked at. @throws Refusal that names every part of it that cannot be read, or not by who asks */
export async function askedOf(
  { db, who, now }: { db: Reader; who: Asker; now: Date },
  kind: ListKind,
  address: string | undefined,
): Promise<{ ask: ListAsk; from: Standpoint }> {
  const [own, from] = await Promise.all([ownListFields(db, kind), standpointOf(db, who, now)])
  const { ask, wrong } = parseAsk(kind, address ?? '', [...listFieldsFor(kind, (permission) => can(who, permission)), ...own])
  if (wrong.length)
    throw new Refusal(wrong.map((name) => ({ code: 'list_address', sentence: `“${name}” in the address says nothing this list can be asked.`, field: name })))
  return { ask: await resolveOwn(db, ask, from), from }
}

/** The fields administrators have added to what a list is of. */
export const ownListFields = async (db: Reader, kind: ListKind): Promise<ListField[]> =>
  isOwnKind(kind) ? (await ownFieldsOf(db, kind)).map(ownListField) : []

/** Who reads a list: one that asks for words has to be done in time. */
export const readerOf = (service: Service, ask: Pick<ListAsk, 'clauses'>): Db =>
  ask.clauses.some((clause) => clause.field === 'words') ? service.searcher : service.db
