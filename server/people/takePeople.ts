import { inArray, sql } from 'drizzle-orm'
import { foldText } from '#core/kit'
import type { TableRow } from '#core/setup'
import type { Tx } from '#server/kit'
import { people } from '../tables'
import type { places } from '../tables'

const AT_ONCE = 500

/** Makes and changes people of a site from rows of a table. What a row leaves empty stays as it was. */
export async function takePeople(
  tx: Tx,
  siteId: number,
  { fresh, changed }: { fresh: TableRow[]; changed: TableRow[] },
  placeRows: Pick<typeof places.$inferSelect, 'id' | 'code'>[],
  payerIds: Map<string, number>,
): Promise<void> {
  const placeIds = new Map(placeRows.map((row) => [row.code.toLowerCase(), row.id]))
  const emails = [...fresh, ...changed].map(({ fields }) => fields.email!.toLowerCase())
  const before = new Map<string, typeof people.$inferSelect>()
  for (let from = 0; from < emails.length; from += AT_ONCE)
    for (const row of await tx
      .select()
      .from(people)
      .where(inArray(people.email, emails.slice(from, from + AT_ONCE))))
      before.set(row.email!.toLowerCase(), row)
  const rows = [...fresh, ...changed].map(({ fields }) => {
    const old = before.get(fields.email!.toLowerCase())
    const row = {
      siteId,
      name: fields.name!,
      email: fields.email!.toLowerCase(),
      phone: fields.phone || old?.phone || null,
      extension: fields.extension || old?.extension || null,
      title: fields.title || old?.title || null,
      department: fields.department || old?.department || null,
      placeId: fields.place ? placeIds.get(fields.place.toLowerCase())! : (old?.placeId ?? null),
      payerId: fields.payer ? payerIds.get(fields.payer.toLowerCase())! : (old?.payerId ?? null),
    }
    const searchText = foldText(`${row.name} ${row.email.replace('@', ' ')} ${row.extension ?? ''} ${row.title ?? ''}`).slice(0, 400)
    return { ...row, searchText }
  })
  for (let from = 0; from < rows.length; from += AT_ONCE)
    await tx
      .insert(people)
      .values(rows.slice(from, from + AT_ONCE))
      .onDuplicateKeyUpdate({
        set: Object.fromEntries(
          (['name', 'phone', 'extension', 'title', 'department', 'placeId', 'payerId', 'searchText'] as const).map((column) => [
            column,
            sql.raw(`values(\`${people[column].name}\`)`),
          ]),
        ),
      })
}
