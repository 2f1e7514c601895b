import { and, asc, eq, isNull, lt, or } from 'drizzle-orm'
import type { Feeds } from '#contract/feeds'
import * as contract from '#contract/feeds'
import { MOST_FEEDS } from '#core/feeds'
import type { FeedRegister } from '#core/feeds'
import { refuse } from '#core/kit'
import { command, delivery, maySee, notFound, ProblemReply, query, sha256 } from '#server/kit'
import type { Asker, Outgoing, Reader, Service, Tx } from '#server/kit'
import { accounts, feeds, people, places, teams, technicians, vendors } from '../tables'
import { feedText } from './calendar'
import { visitsIn } from './visitsIn'

interface Of {
  register: FeedRegister
  recordId: number
}
interface Subject {
  name: string
  siteId: number | null
  /** Why there is nothing to subscribe to. */
  whyNot: string | null
}

/** What a feed is of. @throws ProblemReply 404 where it is not theirs to see */
async function subjectOf(db: Reader, who: Asker | null, { register, recordId }: Of): Promise<Subject> {
  const [found] = await {
    people: async () =>
      (
        await db
          .select({ name: people.name, siteId: people.siteId, technicianId: technicians.id, retiredAt: people.retiredAt, closedAt: accounts.disabledAt })
          .from(people)
          .leftJoin(accounts, eq(accounts.personId, people.id))
          .leftJoin(technicians, eq(technicians.accountId, accounts.id))
          .where(eq(people.id, recordId))
      ).map((row) => ({
        ...row,
        whyNot: row.technicianId === null ? 'They are no technician: nobody sends them anywhere.' : row.closedAt ? 'Their account is closed.' : null,
      })),
    teams: async () => (await db.select().from(teams).where(eq(teams.id, recordId))).map((row) => ({ ...row, whyNot: null })),
    vendors: async () => (await db.select().from(vendors).where(eq(vendors.id, recordId))).map((row) => ({ ...row, siteId: null, whyNot: null })),
    places: async () => (await db.select().from(places).where(eq(places.id, recordId))).map((row) => ({ ...row, whyNot: null })),
  }[register]()
  if (!found || (who && found.siteId !== null && !maySee(who, found.siteId))) throw notFound('record')
  return { name: found.name, siteId: found.siteId, whyNot: found.retiredAt ? 'It is retired.' : found.whyNot }
}

const inUse = ({ register, recordId }: Of) => and(eq(feeds.register, register), eq(feeds.recordId, recordId), isNull(feeds.revokedAt))

const addressOf = (service: Service, nonce: string) => `${service.publicUrl()}/api/feed/${service.links.again('feed', nonce)}/visits.ics`

async function feedsOf(db: Reader, who: Asker, of: Of, service: Service): Promise<Outgoing<Feeds>> {
  const { whyNot } = await subjectOf(db, who, of)
  const rows = await db.select().from(feeds).where(inUse(of)).orderBy(asc(feeds.id))
  return {
    rows: rows.map((row) => ({ id: row.id, for: row.for, address: addressOf(service, row.nonce), madeAt: row.madeAt, readAt: row.readAt })),
    whyNot: whyNot ?? (rows.length >= MOST_FEEDS ? `There are ${MOST_FEEDS} already. Take one back first.` : null),
  }
}

async function make(tx: Tx, of: Of, made: string, who: Asker, now: Date, service: Service): Promise<string> {
  const link = service.links.fresh('feed')
  await tx.insert(feeds).values({ ...of, for: made, nonce: link.nonce, tokenHash: link.hash, madeAt: now, madeBy: who.accountId })
  return addressOf(service, link.nonce)
}

export const listFeeds = query(contract.listFeeds, ({ db, who, input, service }) => feedsOf(db, who, input, service))

export const makeFeed = command(contract.makeFeed, async ({ tx, who, input, now, tell, service }) => {
  const of = { register: input.register, recordId: input.recordId }
  const { whyNot } = await feedsOf(tx, who, of, service)
  if (whyNot) refuse('no_feed', String(whyNot), 'for')
  const { siteId } = await subjectOf(tx, who, of)
  await make(tx, of, input.for.trim(), who, now, service)
  await tell({ kind: 'feed.make', siteId: siteId ?? who.homeSiteId, ...of, details: { for: input.for.trim() } })
  return feedsOf(tx, who, of, service)
})

export const revokeFeed = command(contract.revokeFeed, async ({ tx, who, input, now, tell, service }) => {
  const [feed] = await tx.select().from(feeds).where(eq(feeds.id, input.id)).for('update')
  if (!feed) throw notFound('feed')
  const of = { register: feed.register, recordId: feed.recordId }
  const { siteId } = await subjectOf(tx, who, of)
  if (!feed.revokedAt) {
    await tx.update(feeds).set({ revokedAt: now }).where(eq(feeds.id, feed.id))
    await tell({ kind: 'feed.revoke', siteId: siteId ?? who.homeSiteId, ...of, details: { for: feed.for } })
  }
  return feedsOf(tx, who, of, service)
})

/** Whoever works in the field, as the person they are. @throws ProblemReply 404 for who is sent nowhere */
async function meAs(db: Reader, who: Asker): Promise<Of> {
  const [me] = who.technicianId === null ? [] : await db.select({ id: accounts.personId }).from(accounts).where(eq(accounts.id, who.accountId!))
  if (!me) throw notFound('technician')
  return { register: 'people', recordId: me.id }
}
const mine = (of: Of, who: Asker) => and(inUse(of), eq(feeds.madeBy, who.accountId!))

export const readMyFeed = query(contract.readMyFeed, async ({ db, who, service }) => {
  const [feed] = await db
    .select()
    .from(feeds)
    .where(mine(await meAs(db, who), who))
  return { address: feed ? addressOf(service, feed.nonce) : null }
})
export const makeMyFeed = command(contract.makeMyFeed, async ({ tx, who, now, tell, service }) => {
  const of = await meAs(tx, who)
  await tx.update(feeds).set({ revokedAt: now }).where(mine(of, who))
  const address = await make(tx, of, who.name, who, now, service)
  await tell({ kind: 'feed.make', siteId: who.homeSiteId, ...of, details: { for: who.name } })
  return { address }
})
export const revokeMyFeed = command(contract.revokeMyFeed, async ({ tx, who, now, tell }) => {
  const of = await meAs(tx, who)
  await tx.update(feeds).set({ revokedAt: now }).where(mine(of, who))
  await tell({ kind: 'feed.revoke', siteId: who.homeSiteId, ...of, details: { for: who.name } })
  return { address: null }
})

/** Noted at most so often that it was read. */
const READ_EVERY_MS = 300_000

/** @throws ProblemReply 404 where it was taken back, or is of somebody who is not sent out any more */
export const readFeed = delivery(contract.readFeed, async ({ db, input, now, service, response }) => {
  const [feed] = await db
    .select()
    .from(feeds)
    .where(and(eq(feeds.tokenHash, sha256(input.token)), isNull(feeds.revokedAt)))
  const subject = feed && (await subjectOf(db, null, feed))
  if (!feed || subject!.whyNot) throw new ProblemReply(404, 'There is no calendar here', 'It was taken back, or the address was not copied whole.')
  // A vendor has no account: their pass came by mail.
  const opens = feed.register === 'vendors' ? null : (id: number) => `${service.publicUrl()}/job/${id}`
  const text = feedText(subject!.name, await visitsIn(db, feed.register, feed.recordId, now), now, opens)
  await service.writer
    .update(feeds)
    .set({ readAt: now })
    .where(and(eq(feeds.id, feed.id), or(isNull(feeds.readAt), lt(feeds.readAt, new Date(now.getTime() - READ_EVERY_MS)))))
  response.setHeader('Content-Type', 'text/calendar; charset=utf-8')
  response.setHeader('Cache-Control', 'private, max-age=300')
  response.end(text)
})
