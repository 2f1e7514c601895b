import { eq } from 'drizzle-orm'
import { foldText, refuse } from '#core/kit'
import { keyOfRow } from '#core/setup'
import type { TableRow } from '#core/setup'
import { isDuplicate } from '#server/kit'
import type { Tx } from '#server/kit'
import { places } from '../tables'
import type { sites } from '../tables'

type PlaceRecord = Omit<typeof places.$inferSelect, 'version' | 'retiredAt'>

/**
 * Makes and changes places of a site from rows of a table, parents first, so that every one finds its own above it.
 * `before` are the places there are, `payerIds` the payers by their folded codes.
 */
export async function takePlaces(
  tx: Tx,
  site: typeof sites.$inferSelect,
  rows: TableRow[],
  before: PlaceRecord[],
  payerIds: Map<string, number>,
): Promise<void> {
  const byCode = new Map(before.map((row) => [row.code.toLowerCase(), row]))
  const root = before.find((row) => row.kind === 'site')
  if (!root) refuse('site_place', `${site.name} has no place of its own to put others in.`, 'siteId')
  for (const { fields, line } of rows) {
    const key = keyOfRow('places', fields)
    const payerId = fields.payer ? payerIds.get(fields.payer.toLowerCase())! : undefined
    const old = byCode.get(key)
    if (old) {
      const changed = { name: fields.name!, ...(fields.access ? { access: fields.access } : {}), ...(payerId ? { payerId } : {}) }
      await tx.update(places).set(changed).where(eq(places.id, old.id))
      byCode.set(key, { ...old, ...changed })
      continue
    }
    const parent = fields.parent ? byCode.get(fields.parent.toLowerCase())! : root
    const row = {
      siteId: site.id,
      parentId: parent.id,
      kind: fields.kind!.toLowerCase() as PlaceRecord['kind'],
      code: fields.code!,
      name: fields.name!,
      path: parent.path,
      searchText: '',
      access: fields.access || null,
      position: null,
      payerId: payerId ?? null,
    }
    const [saved] = await tx
      .insert(places)
      .values(row)
      .$returningId()
      .catch((error: unknown) => {
        if (!isDuplicate(error)) throw error
        return refuse('row', `Line ${line}: the code ${row.code} reads like another here. Nothing was taken; give it another code.`, 'file')
      })
    const path = `${parent.path}${saved!.id}/`
    await tx.update(places).set({ path }).where(eq(places.id, saved!.id))
    byCode.set(key, { ...row, id: saved!.id, path })
  }
  await refreshSearch(tx, [...byCode.values()])
}

/** A name stands in the search words of everything below it. */
async function refreshSearch(tx: Tx, rows: PlaceRecord[]): Promise<void> {
  const byId = new Map(rows.map((row) => [row.id, row]))
  for (const row of rows) {
    const names = row.path
      .split('/')
      .filter(Boolean)
      .map((id) => byId.get(Number(id)))
      .filter((one) => one && (one.kind !== 'site' || one.id === row.id))
      .map((one) => one!.name)
      .reverse()
    const searchText = foldText(`${row.code} ${names.join(' ')}`).slice(0, 400)
    if (searchText !== row.searchText) await tx.update(places).set({ searchText }).where(eq(places.id, row.id))
  }
}
