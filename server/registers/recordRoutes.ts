import { eq } from 'drizzle-orm'
import type { Endpoint } from '#contract/kit'
import type { ById, ByVersion, RecordSheet, RetireInput } from '#contract/registers'
import { Refusal } from '#core/kit'
import type { Reason } from '#core/kit'
import { counted } from '#core/kit'
import type { Permission } from '#core/people'
import { namedIn } from '#core/registers'
import type { AnyFieldTable } from '#core/registers'
import { can, changesOf, command, conflict, mustKnow, mySite, query } from '#server/kit'
import type { Asker, Outgoing, Route, Tell, Tx } from '#server/kit'
import { anyKeeper } from './keeper'
import type { AnyKeeper, AnyRow, Keeper } from './keeper'
import { lockRecord, recordSheet, seenRecord } from './readRecord'
import { namesIn } from './recordNames'
import { workOn } from './recordWork'

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

    command(promised.edit, async ({ tx, who, input, now, tell }) => {
      const { id, version, ...sent } = input
      const before = await lockRecord(tx, keeper, who, id)
      refuseOthersFields(keeper.fields, who, sent)
      const { fields, differences } = changesOf(before, sent)
      if (before.version !== version) throw conflict(before.version, differences)
      const fixed = Object.keys(fields).flatMap((name): Reason[] => {
        const { fixed: why } = keeper.fields[name]!
        return why ? [{ code: 'fixed', sentence: why, field: name }] : []
      })
      if (fixed.length) throw new Refusal(fixed)
      await mustNameKnown(tx, keeper.fields, fields, before.siteId, who)
      const after = { ...before, ...fields } as AnyRow
      await mustFit(tx, keeper, after, before)
      if (Object.keys(fields).length) {
        const follows = (await keeper.follows?.(tx, after as never, before as never)) ?? {}
        await tx
          .update(keeper.table)
          .set({ ...fields, ...follows, version: version + 1 })
          .where(eq(keeper.table.id, id))
        await keeper.settle?.(tx, { ...after, ...follows } as never, before as never)
        const told = Object.fromEntries(differences.map(({ field, theirs, yours }) => [field, { from: theirs, to: yours }]))
        await tell({
          kind: 'register.edit',
          siteId: before.siteId ?? null,
          register: keeper.register,
          recordId: id,
          details: { called: calledIn(keeper, after), fields: hideOthersFields(keeper.fields, told) },
        })
      }
      return sheetOf(tx, who, id, now)
    }),

    command(promised.retire, async ({ tx, who, input, now, tell }) => {
      const row = await lockRecord(tx, keeper, who, input.id)
      if (row.version !== input.version) throw conflict(row.version, [])
      if (row.retiredAt) throw new Refusal([{ code: 'retired', sentence: 'It is retired already.' }])
      const holds = (await keeper.holds?.(tx, row as never)) ?? []
      if (holds.length) throw new Refusal(holds)
      const open = await workOn(tx, keeper, row, who, now)
      if (!input.despiteOpen && open.openOrders + open.openRequests > 0) throw new Refusal([stillOpen(open)])
      await setRetired(tx, keeper, row, now)
      const successor = (await namesIn(tx, keeper.fields, row)).successorId ?? null
      await tell({
        kind: 'register.retire',
        siteId: row.siteId ?? null,
        register: keeper.register,
        recordId: row.id,
        details: { called: calledIn(keeper, row), successor },
      })
      return sheetOf(tx, who, row.id, now)
    }),

    command(promised.restore, async ({ tx, who, input, now, tell }) => {
      const row = await lockRecord(tx, keeper, who, input.id)
      if (row.version !== input.version) throw conflict(row.version, [])
      if (!row.retiredAt) throw new Refusal([{ code: 'in_use', sentence: 'It is in use already.' }])
      await mustFit(tx, keeper, { ...row, retiredAt: null }, row)
      await setRetired(tx, keeper, row, null)
      await tell({
        kind: 'register.restore',
        siteId: row.siteId ?? null,
        register: keeper.register,
        recordId: row.id,
        details: { called: calledIn(keeper, row) },
      })
      return sheetOf(tx, who, row.id, now)
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

const setRetired = (tx: Tx, keeper: AnyKeeper, row: AnyRow, retiredAt: Date | null) =>
  tx
    .update(keeper.table)
    .set({ retiredAt, version: row.version + 1 })
    .where(eq(keeper.table.id, row.id))

function calledIn(keeper: AnyKeeper, row: AnyRow): string {
  const { code, heading } = keeper.called(row as never)
  return [code, heading].filter(Boolean).join(' ')
}

/** @throws Refusal with all that stands in the way of the record as it would be then */
async function mustFit(tx: Tx, keeper: AnyKeeper, after: AnyRow, before: AnyRow | null): Promise<void> {
  const reasons = (await keeper.refuses?.(tx, after as never, before as never)) ?? []
  if (reasons.length) throw new Refusal(reasons)
}

function mustNameKnown(tx: Tx, fields: AnyFieldTable, values: Record<string, unknown>, siteId: number | undefined, who: Asker): Promise<void> {
  const asked = namedIn(fields).filter(({ name }) => values[name] !== undefined && values[name] !== null)
  return mustKnow(
    tx,
    { siteId: siteId ?? who.homeSiteId ?? 0, who },
    Object.fromEntries(asked.map(({ name, of }) => [name, [of, values[name] as number] as const])),
  )
}

/** Some fields are for those alone who may do more. @throws Refusal when somebody else sends one */
function refuseOthersFields(fields: AnyFieldTable, who: Asker, sent: object): void {
  const others = Object.keys(sent).filter((name) => fields[name]?.may && !can(who, fields[name].may))
  if (others.length) throw new Refusal(others.map((field) => ({ code: 'not_yours', sentence: 'Your role does not include this. Nothing was changed.', field })))
}

/** The timeline says that such a field was changed, and not what it holds. */
function hideOthersFields(fields: AnyFieldTable, told: Record<string, { from: unknown; to: unknown }>) {
  return Object.fromEntries(Object.entries(told).map(([name, one]) => [name, fields[name]?.may ? { from: '…', to: '…' } : one]))
}

function stillOpen({ openOrders, lateOrders, openRequests }: { openOrders: number; lateOrders: number; openRequests: number }): Reason {
  const parts = [openOrders ? counted(openOrders, 'order') : '', openRequests ? counted(openRequests, 'request') : ''].filter(Boolean)
  const late = lateOrders ? `, ${lateOrders} of them past target` : ''
  return {
    code: 'still_open',
    sentence: `${parts.join(' and ')} on it ${openOrders + openRequests === 1 ? 'is' : 'are'} still open${late}.`,
    field: 'despiteOpen',
  }
}

const emptyOf = (fields: AnyFieldTable) => Object.fromEntries(Object.keys(fields).map((name) => [name, null]))
const withoutBlanks = (sent: Record<string, unknown>) =>
  Object.fromEntries(Object.entries(sent).flatMap(([name, value]) => (value === undefined ? [] : [[name, value === '' ? null : value]])))
