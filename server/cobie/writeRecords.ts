import { and, eq, inArray } from 'drizzle-orm'
import type { CobieWrites } from '#core/cobie'
import { Refusal, refuse } from '#core/kit'
import { assetKeeper, insertAssets } from '#server/assets'
import { isDuplicate, recordEvents } from '#server/kit'
import type { Asker, Tell, Tx } from '#server/kit'
import { takeOwnValues } from '#server/own'
import { placeKeeper } from '#server/places'
import { anyKeeper, editRecord, insertRecord } from '#server/registers'
import type { AnyKeeper } from '#server/registers'
import { equipmentKeeper, partKeeper } from '#server/stock'
import { vendorKeeper } from '#server/vendors'
import { assets, payers, places, vendors } from '../tables'

export interface Taking {
  tx: Tx
  who: Asker
  now: Date
  tell: Tell
}

/** Ids by the codes and tags a workbook names. */
export type WrittenIds = Record<'places' | 'assets', Map<string, number>>

/** Writes what a workbook changes, places first, so that everything finds what it stands in. @throws Refusal naming what stands in the way; nothing is taken then */
export async function writeRecords(taking: Taking, siteId: number, writes: CobieWrites): Promise<WrittenIds> {
  const { tx } = taking
  const [root] = await tx
    .select({ id: places.id })
    .from(places)
    .where(and(eq(places.siteId, siteId), eq(places.kind, 'site')))
  if (!root) refuse('site_place', 'The site has no place of its own to put a building in.', 'siteId')
  const placeIds = new Map(
    (await tx.select({ id: places.id, code: places.code }).from(places).where(eq(places.siteId, siteId))).map(({ id, code }) => [code, id]),
  )
  const at = (code: string) => placeIds.get(code) ?? root.id

  const place = async (named: { id: number | null; code: string; name: string }, kind: string, parentId: number) => {
    if (named.id) return change(taking, anyKeeper(placeKeeper), named.id, named.code, { name: named.name })
    const { id } = await naming(named.code, () => insertRecord(taking, placeKeeper, { siteId, code: named.code, name: named.name, kind, parentId } as never))
    placeIds.set(named.code, id)
  }
  if (writes.building) await place(writes.building, 'building', root.id)
  for (const floor of writes.floors) await place(floor, 'floor', at(writes.within))
  for (const space of writes.spaces) await place(space, 'space', at(space.floor))
  const payerIds = new Map((await tx.select({ id: payers.id, code: payers.code }).from(payers)).map(({ id, code }) => [code, id]))
  for (const { code, payer } of writes.payers) await change(taking, anyKeeper(placeKeeper), at(code), code, { payerId: payerIds.get(payer)! })

  for (const { id, name, email, phone } of writes.vendors)
    if (id) await change(taking, anyKeeper(vendorKeeper), id, name, { phone })
    else await naming(name, () => insertRecord(taking, vendorKeeper, { name, email, phone } as never))
  for (const { id, code, name, unit } of writes.parts)
    if (id) await change(taking, anyKeeper(partKeeper), id, code, { name })
    else await naming(code, () => insertRecord(taking, partKeeper, { code, name, unit } as never))
  for (const { id, code, name } of writes.equipment)
    if (id) await change(taking, anyKeeper(equipmentKeeper), id, code, { name })
    else await naming(code, () => insertRecord(taking, equipmentKeeper, { siteId, tag: code, name } as never))

  const tags = await takeAssets(taking, siteId, writes, placeIds)
  await takeOwn(taking, writes, placeIds, tags)
  return { places: placeIds, assets: tags }
}

async function takeAssets(taking: Taking, siteId: number, writes: CobieWrites, placeIds: Map<string, number>): Promise<Map<string, number>> {
  const { tx, who, now } = taking
  const vendorIds = new Map((await tx.select({ id: vendors.id, name: vendors.name }).from(vendors)).map(({ id, name }) => [name, id]))
  const named = new Map((await tx.select({ code: places.code, name: places.name }).from(places).where(eq(places.siteId, siteId))).map((row) => [row.code, row]))
  /** Fields by the ids of what they name. */
  const columns = ({ space, vendor, parent: _, ...fields }: CobieWrites['assets'][number]['fields']) => ({
    ...fields,
    ...(space ? { placeId: placeIds.get(space)! } : {}),
    ...(vendor ? { vendorId: vendorIds.get(vendor) ?? null } : {}),
  })
  const fresh = writes.assets.filter(({ id }) => id === null)
  const made = await insertAssets(
    tx,
    siteId,
    fresh.map(({ tag, fields }) => ({ ...columns(fields), tag, name: fields.name!, placeId: placeIds.get(fields.space!)!, place: named.get(fields.space!)! })),
  ).catch((error: unknown) => {
    if (!isDuplicate(error)) throw error
    return refuse('row', 'A tag of the workbook reads like one that is there already, also one that is retired. Nothing was taken; look again.', 'file')
  })
  await recordEvents(
    tx,
    who,
    now,
    fresh.map(({ tag, fields }) => ({
      kind: 'register.add' as const,
      siteId,
      register: 'assets' as const,
      recordId: made.get(tag)!,
      details: { called: `${tag} ${fields.name}` },
    })),
  )
  const tags = new Map(made)
  for (const { id, tag } of writes.assets) if (id !== null) tags.set(tag, id)
  const wanted = [
    ...new Set([
      ...writes.assets.flatMap(({ fields }) => fields.parent ?? []),
      ...writes.own.filter(({ kind }) => kind === 'assets').map(({ code }) => code),
      ...writes.jobs.map(({ tag }) => tag),
      ...writes.documents.filter(({ on }) => on === 'assets').map(({ code }) => code),
    ]),
  ].filter((tag) => !tags.has(tag))
  for (let from = 0; from < wanted.length; from += 1_000) {
    const some = wanted.slice(from, from + 1_000)
    for (const row of await tx
      .select({ id: assets.id, tag: assets.tag })
      .from(assets)
      .where(and(eq(assets.siteId, siteId), inArray(assets.tag, some))))
      tags.set(row.tag, row.id)
  }
  for (const { id, tag, fields } of writes.assets) {
    const parentId = fields.parent ? tags.get(fields.parent) : undefined
    if (fields.parent && !parentId) refuse('row', `${tag}: there is no ${fields.parent} it could be part of. Nothing was taken.`, 'file')
    const changed = { ...(id === null ? {} : columns(fields)), ...(parentId ? { parentId } : {}) }
    if (Object.keys(changed).length) await change(taking, anyKeeper(assetKeeper), id ?? made.get(tag)!, tag, changed)
  }
  return tags
}

async function takeOwn(taking: Taking, writes: CobieWrites, placeIds: Map<string, number>, tags: Map<string, number>): Promise<void> {
  for (const kind of ['places', 'assets'] as const) {
    const ids = kind === 'places' ? placeIds : tags
    const values = writes.own.filter((one) => one.kind === kind).map(({ code, fieldId, label, value }) => ({ fieldId, label, value, recordId: ids.get(code)! }))
    await takeOwnValues(taking, kind, values)
  }
}

/** By the rules of its register, from whatever version it has at this moment: the workbook says what it should be. */
async function change(taking: Taking, keeper: AnyKeeper, id: number, called: string, sent: Record<string, unknown>): Promise<void> {
  const [row] = (await taking.tx.select({ version: keeper.table.version }).from(keeper.table).where(eq(keeper.table.id, id)).for('update')) as [
    { version: number },
  ]
  await naming(called, () => editRecord(taking, keeper, { id, version: row.version }, sent))
}

export async function naming<Answer>(called: string, act: () => Promise<Answer>): Promise<Answer> {
  try {
    return await act()
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    return refuse('row', `${called}: ${error.reasons.map(({ sentence }) => sentence).join(' ')} Nothing was taken.`, 'file')
  }
}
