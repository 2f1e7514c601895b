import { and, asc, eq, or } from 'drizzle-orm'
import type { Views } from '#contract/lists'
import type { ViewFields } from '#contract/lists'
import { refuse } from '#core/kit'
import { LIST_FIELDS, parseAsk, SHIPPED_VIEWS } from '#core/lists'
import { isDuplicate } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { ownListFields } from './asked'
import { accounts, defaultViews, people, savedViews, teams, technicians } from '../tables'

export const USUAL_VIEW = 'outstanding'

/** What somebody can open: what ships, their own, and what reaches them. */
export async function viewsOf(db: Reader, who: Asker): Promise<Views> {
  const team = await teamOf(db, who)
  const saved = await db
    .select({ view: savedViews, owner: people.name, team: teams.name })
    .from(savedViews)
    .innerJoin(accounts, eq(accounts.id, savedViews.ownerId))
    .innerJoin(people, eq(people.id, accounts.personId))
    .leftJoin(teams, eq(teams.id, savedViews.teamId))
    .where(
      or(
        eq(savedViews.ownerId, who.accountId!),
        eq(savedViews.sharedWith, 'all'),
        team ? and(eq(savedViews.sharedWith, 'team'), eq(savedViews.teamId, team.id)) : undefined,
      ),
    )
    .orderBy(asc(savedViews.name), asc(savedViews.id))
  const rows: Views['rows'] = [
    ...SHIPPED_VIEWS.map((view) => ({ ...view, id: null, sharedWith: 'all' as const, team: null, owner: null, mine: false, version: 1 })),
    ...saved.map(({ view, owner, team: teamName }) => ({
      key: `v${view.id}`,
      id: view.id,
      kind: view.kind,
      name: view.name,
      address: view.address,
      sharedWith: view.sharedWith,
      team: teamName,
      owner,
      mine: view.ownerId === who.accountId,
      version: view.version,
    })),
  ]
  const [chosen] = await db.select().from(defaultViews).where(eq(defaultViews.accountId, who.accountId!))
  const usual = rows.some((row) => row.key === chosen?.viewKey) ? chosen!.viewKey : USUAL_VIEW
  return { rows, usual, team }
}

async function teamOf(db: Reader, who: Asker): Promise<Views['team']> {
  const [row] = await db
    .select({ own: accounts.teamId, shift: technicians.teamId })
    .from(accounts)
    .leftJoin(technicians, eq(technicians.accountId, accounts.id))
    .where(eq(accounts.id, who.accountId!))
  const id = row?.own ?? row?.shift
  if (!id) return null
  const [team] = await db.select({ id: teams.id, name: teams.name }).from(teams).where(eq(teams.id, id))
  return team ?? null
}

/** What is written of a view. @throws Refusal for an address no list understands, or a team nobody is in */
export async function viewValues(db: Reader, who: Asker, { name, kind, address, sharedWith }: ViewFields) {
  const { wrong } = parseAsk(kind, address, [...LIST_FIELDS[kind], ...(await ownListFields(db, kind))])
  if (wrong.length) refuse('list_address', `“${wrong[0]}” in the address says nothing this list can be asked.`, 'address')
  const team = sharedWith === 'team' ? await teamOf(db, who) : null
  if (sharedWith === 'team' && !team)
    refuse('no_team', 'You are in no team; an administrator says which in Setup. Keep it to yourself or share it with everybody.', 'sharedWith')
  return { name, kind, address, sharedWith, teamId: team?.id ?? null }
}

/** Runs what writes a view; a name used twice is said at its field. */
export async function withUniqueName<T>(name: string, write: () => Promise<T>): Promise<T> {
  try {
    return await write()
  } catch (error) {
    if (isDuplicate(error)) refuse('name_taken', `You have a view called “${name}” already; choose another name.`, 'name')
    throw error
  }
}
