import { eq } from 'drizzle-orm'
import type { ByVersion, RetireInput } from '#contract/registers'
import { counted, Refusal } from '#core/kit'
import type { Reason } from '#core/kit'
import { namedIn } from '#core/registers'
import type { AnyFieldTable } from '#core/registers'
import { can, changesOf, conflict, mustKnow } from '#server/kit'
import type { Asker, Tell, Tx } from '#server/kit'
import type { AnyKeeper, AnyRow } from './keeper'
import { lockRecord } from './readRecord'
import { namesIn } from './recordNames'
import { workOn } from './recordWork'

/** By whom and when a record is changed, and who is told. */
export interface Changing {
  tx: Tx
  who: Asker
  now: Date
  tell: Tell
}

/**
 * Changes the fields that were sent. @returns how it was before and is now
 * @throws Refusal with everything that stands in the way; ProblemReply 404 or 409
 */
export async function editRecord(
  { tx, who, tell }: Changing,
  keeper: AnyKeeper,
  { id, version }: ByVersion,
  sent: Record<string, unknown>,
): Promise<{ before: AnyRow; after: AnyRow }> {
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
  if (!Object.keys(fields).length) return { before, after }
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
  return { before, after: { ...after, version: version + 1 } }
}

/** Retires a record: it is not chosen any more, and its history stays. @throws Refusal, ProblemReply */
export async function retireRecord({ tx, who, now, tell }: Changing, keeper: AnyKeeper, { id, version, despiteOpen }: RetireInput): Promise<void> {
  const row = await lockRecord(tx, keeper, who, id)
  if (row.version !== version) throw conflict(row.version, [])
  if (row.retiredAt) throw new Refusal([{ code: 'retired', sentence: 'It is retired already.' }])
  const holds = (await keeper.holds?.(tx, row as never)) ?? []
  if (holds.length) throw new Refusal(holds)
  const open = await workOn(tx, keeper, row, who, now)
  if (!despiteOpen && open.openOrders + open.openRequests > 0) throw new Refusal([stillOpen(open)])
  await setRetired(tx, keeper, row, now)
  const successor = (await namesIn(tx, keeper.fields, row)).successorId ?? null
  await tell({
    kind: 'register.retire',
    siteId: row.siteId ?? null,
    register: keeper.register,
    recordId: row.id,
    details: { called: calledIn(keeper, row), successor },
  })
}

/** Takes a retired record into use again. @throws Refusal, ProblemReply */
export async function restoreRecord({ tx, who, tell }: Changing, keeper: AnyKeeper, { id, version }: ByVersion): Promise<void> {
  const row = await lockRecord(tx, keeper, who, id)
  if (row.version !== version) throw conflict(row.version, [])
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
}

const setRetired = (tx: Tx, keeper: AnyKeeper, row: AnyRow, retiredAt: Date | null) =>
  tx
    .update(keeper.table)
    .set({ retiredAt, version: row.version + 1 })
    .where(eq(keeper.table.id, row.id))

export function calledIn(keeper: AnyKeeper, row: AnyRow): string {
  const { code, heading } = keeper.called(row as never)
  return [code, heading].filter(Boolean).join(' ')
}

/** @throws Refusal with all that stands in the way of the record as it would be then */
export async function mustFit(tx: Tx, keeper: AnyKeeper, after: AnyRow, before: AnyRow | null): Promise<void> {
  const reasons = (await keeper.refuses?.(tx, after as never, before as never)) ?? []
  if (reasons.length) throw new Refusal(reasons)
}

export function mustNameKnown(tx: Tx, fields: AnyFieldTable, values: Record<string, unknown>, siteId: number | undefined, who: Asker): Promise<void> {
  const asked = namedIn(fields).filter(({ name }) => values[name] !== undefined && values[name] !== null)
  return mustKnow(
    tx,
    { siteId: siteId ?? who.homeSiteId ?? 0, who },
    Object.fromEntries(asked.map(({ name, of }) => [name, [of, values[name] as number] as const])),
  )
}

/** Some fields are for those alone who may do more. @throws Refusal when somebody else sends one */
export function refuseOthersFields(fields: AnyFieldTable, who: Asker, sent: object): void {
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
