import { eq, isNull, sql } from 'drizzle-orm'
import { and } from 'drizzle-orm'
import { counted, foldText } from '#core/kit'
import { PERSON_FIELDS, TEAM_FIELDS } from '#core/registers'
import type { PersonFields, TeamFields } from '#core/registers'
import { takenBy } from '#server/registers'
import type { Keeper } from '#server/registers'
import { accounts, orders, people, requests, teams, technicians } from '../tables'

/** How people are kept, whether they have an account or not. */
export const personKeeper: Keeper<PersonFields> = {
  register: 'people',
  table: people,
  fields: PERSON_FIELDS,
  called: ({ name }) => ({ code: null, heading: name }),
  orders: ({ id }) =>
    sql`exists (select 1 from visit v join technician t on t.id = v.technician_id join account a on a.id = t.account_id where v.order_id = ${orders.id} and a.person_id = ${id} and v.state <> 'recalled')`,
  requests: ({ id }) => eq(requests.reporterId, id),
  refuses: async (tx, after, before) =>
    !after.email || after.email === before?.email
      ? []
      : takenBy(tx, { register: 'people', table: people, id: after.id, where: eq(people.email, after.email), field: 'email', word: after.email }, (other) =>
          String(other.name),
        ),
  follows: (_tx, { name, email, extension, title, department }) =>
    Promise.resolve({ searchText: foldText([name, email?.replace('@', ' '), extension, title, department].filter(Boolean).join(' ')).slice(0, 400) }),
  async holds(db, { id }) {
    const open = await db
      .select({ id: accounts.id })
      .from(accounts)
      .where(and(eq(accounts.personId, id), isNull(accounts.disabledAt)))
    return open.length ? [{ code: 'has_account', sentence: 'Their account is open. An administrator closes it in Setup first.' }] : []
  },
}

export const teamKeeper: Keeper<TeamFields> = {
  register: 'teams',
  table: teams,
  fields: TEAM_FIELDS,
  called: ({ name }) => ({ code: null, heading: name }),
  orders: ({ id }) => eq(orders.teamId, id),
  refuses: async (tx, after, before) =>
    after.name === before?.name
      ? []
      : takenBy(
          tx,
          {
            register: 'teams',
            table: teams,
            id: after.id,
            where: and(eq(teams.siteId, after.siteId!), eq(teams.name, after.name)),
            field: 'name',
            word: after.name,
          },
          () => 'another team',
        ),
  async holds(db, { id }) {
    const members = await db.select({ id: technicians.id }).from(technicians).where(eq(technicians.teamId, id))
    return members.length ? [{ code: 'has_members', sentence: `${counted(members.length, 'technician')} ${members.length === 1 ? 'is' : 'are'} in it.` }] : []
  },
}
