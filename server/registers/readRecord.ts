import { eq } from 'drizzle-orm'
import type { RecordFrame } from '#contract/registers'
import type { Permission } from '#core/people'
import { ONE_OF } from '#core/registers'
import { can, canAt, maySee, notFound } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { sites } from '../tables'
import { fieldsFor } from './keeper'
import type { AnyKeeper, AnyRow } from './keeper'
import { namesIn } from './recordNames'
import { workOn } from './recordWork'

/** The row of a record somebody may see. @throws ProblemReply 404 when it is not theirs to see */
export async function seenRecord(db: Reader, keeper: AnyKeeper, who: Asker, id: number): Promise<AnyRow> {
  const [row] = (await db.select().from(keeper.table).where(eq(keeper.table.id, id))) as AnyRow[]
  return mineToSee(keeper, who, row)
}

/** The same, locked for a change. @throws ProblemReply 404 */
export async function lockRecord(db: Reader, keeper: AnyKeeper, who: Asker, id: number): Promise<AnyRow> {
  const [row] = (await db.select().from(keeper.table).where(eq(keeper.table.id, id)).for('update')) as AnyRow[]
  return mineToSee(keeper, who, row)
}

function mineToSee(keeper: AnyKeeper, who: Asker, row: AnyRow | undefined): AnyRow {
  if (!row || (row.siteId !== undefined && !maySee(who, row.siteId))) throw notFound(ONE_OF[keeper.register].name)
  return row
}

/** What its Portrait begins with: its fields, what their ids are called, and how much work is open on it. */
export async function recordSheet<Fields>(db: Reader, keeper: AnyKeeper, who: Asker, row: AnyRow, now: Date, edits: Permission): Promise<RecordFrame & Fields> {
  const mine = fieldsFor(keeper.fields, (permission) => can(who, permission))
  const values = Object.fromEntries(mine.map((name) => [name, row[name] ?? null]))
  const [names, work, [site]] = await Promise.all([
    namesIn(db, keeper.fields, values),
    workOn(db, keeper, row, who, now),
    row.siteId === undefined
      ? []
      : db.select({ id: sites.id, code: sites.code, name: sites.name, currency: sites.currency }).from(sites).where(eq(sites.id, row.siteId)),
  ])
  return {
    ...(values as Fields),
    ...keeper.called(row as never),
    id: row.id,
    version: row.version,
    register: keeper.register,
    site: site ?? null,
    state: row.retiredAt ? 'retired' : 'in_use',
    mayEdit: row.siteId === undefined ? can(who, edits) : canAt(who, edits, row.siteId),
    names,
    work,
  }
}
