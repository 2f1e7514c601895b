import type { Endpoint } from '#contract/kit'
import type { ById, ByVersion, RecordSheet, RetireInput } from '#contract/registers'
import type { Permission } from '#core/people'
import type { AnyFieldTable } from '#core/registers'
import { command, mySite, query } from '#server/kit'
import type { Asker, Outgoing, Route, Tell, Tx } from '#server/kit'
import { calledIn, editRecord, mustFit, mustNameKnown, refuseOthersFields, restoreRecord, retireRecord } from './changeRecord'
import { anyKeeper } from './keeper'
import type { AnyKeeper, AnyRow, Keeper } from './keeper'
import { lockRecord, recordSheet, seenRecord } from './readRecord'

/** What a register promises. */
export interface RecordEndpoints<Fields, Add, Edit extends ByVersion> {
  read: Endpoint<ById, RecordSheet<Fields>>
  add: Endpoint<Add, RecordSheet<Fields>>
  edit: Endpoint<Edit, RecordSheet<Fields>>
  retire: Endpoint<RetireInput, RecordSheet<Fields>>
  restore: Endpoint<ByVersion, RecordSheet<Fields>>
}

/** What reads, enters, changes, retires and takes back the records of a register. */
export function recordRoutes<Fields, Add extends { siteId?: number }, Edit extends ByVersion>(
  kept: Keeper<Fields>,
  promised: RecordEndpoints<Fields, Add, Edit>,
): Route[] {
  const keeper = anyKeeper(kept)
  const edits = promised.edit.may as Permission
  type Sheet = Outgoing<RecordSheet<Fields>>
  const sheetOf = async (tx: Tx, who: Asker, id: number, now: Date) =>
    (await recordSheet<Fields>(tx, keeper, who, await seenRecord(tx, keeper, who, id), now, edits)) as Sheet

  return [
    query(promised.read, async ({ db, who, input, now }) => {
      const row = await seenRecord(db, keeper, who, input.id)
      return (await recordSheet<Fields>(db, keeper, who, row, now, edits)) as Sheet
    }),

    command(promised.add, async ({ tx, who, input, now, tell }) => {
      refuseOthersFields(keeper.fields, who, input)
      const { id } = await insertRecord({ tx, who, tell }, keeper, input)
      return sheetOf(tx, who, id, now)
    }),

    command(promised.edit, async (context) => {
      const { id, version, ...sent } = context.input
      await editRecord(context, keeper, { id, version }, sent)
      return sheetOf(context.tx, context.who, id, context.now)
    }),

    command(promised.retire, async (context) => {
      await retireRecord(context, keeper, context.input)
      return sheetOf(context.tx, context.who, context.input.id, context.now)
    }),

    command(promised.restore, async (context) => {
      await restoreRecord(context, keeper, context.input)
      return sheetOf(context.tx, context.who, context.input.id, context.now)
    }),
  ]
}

/**
 * Makes a record and tells of it, with all that follows from it. `sent` may name its site, where it is of one.
 * @throws Refusal with everything that stands in the way, each at its field
 */
export async function insertRecord<Fields>(
  { tx, who, tell }: { tx: Tx; who: Asker; tell: Tell },
  kept: Keeper<Fields> | AnyKeeper,
  sent: { siteId?: number },
): Promise<AnyRow> {
  const keeper = kept as AnyKeeper
  const { siteId, ...said } = sent
  const site = keeper.table.siteId ? await mySite(tx, who, siteId ?? who.homeSiteId ?? 0) : null
  const values = { ...emptyOf(keeper.fields), ...withoutBlanks(said), ...(site ? { siteId: site.id } : {}) }
  await mustNameKnown(tx, keeper.fields, values, site?.id, who)
  const fresh = { ...values, id: 0, version: 1, retiredAt: null } as unknown as AnyRow
  await mustFit(tx, keeper, fresh, null)
  const follows = (await keeper.follows?.(tx, fresh as never, null)) ?? {}
  const [saved] = await tx.insert(keeper.table).values({ ...values, ...follows })
  const after = await lockRecord(tx, keeper, who, saved.insertId)
  await keeper.settle?.(tx, after as never, null)
  await tell({
    kind: 'register.add',
    siteId: site?.id ?? null,
    register: keeper.register,
    recordId: after.id,
    details: { called: calledIn(keeper, after) },
  })
  return after
}

const emptyOf = (fields: AnyFieldTable) => Object.fromEntries(Object.keys(fields).map((name) => [name, null]))
const withoutBlanks = (sent: Record<string, unknown>) =>
  Object.fromEntries(Object.entries(sent).flatMap(([name, value]) => (value === undefined ? [] : [[name, value === '' ? null : value]])))
