import * as contract from '#contract/lists'
import type { ChangedRow } from '#contract/lists'
import { KINDS } from '#contract/portraits'
import { refuse, Refusal } from '#core/kit'
import type { Permission } from '#core/people'
import { ONE_OF } from '#core/registers'
import type { FieldValue, RegisterName } from '#core/registers'
import { acting, can, command, notAllowed, reasonsOf, recordEvent, refusedFor } from '#server/kit'
import { KEEPERS } from '#server/portraits'
import { calledIn, editRecord, lockRecord, restoreRecord, retireRecord } from '#server/registers'
import type { Changing } from '#server/registers'

interface Item {
  id: number
  version: number
  value: FieldValue
}

/** The same change of several records, each whole or not at all: taken in one order, so that two never wait for each other in a ring. */
export default command(contract.changeRecords, async (context) => {
  const { register, field, items } = context.input
  const permission = KINDS[register].edit.may as Permission
  if (!can(context.who, permission)) throw notAllowed()
  const keeper = KEEPERS[register]
  if (field !== 'retired' && !keeper.fields[field]) refuse('no_field', `${ONE_OF[register].name} has no field “${field}”.`, 'field')
  const who = acting(context.who, permission)
  const rows: ChangedRow[] = []
  for (const item of [...items].sort((a, b) => a.id - b.id)) {
    const known = { id: item.id, number: '', version: item.version, before: null as FieldValue }
    try {
      const done = await context.tx.transaction(async (tx) => {
        const changing: Changing = { tx, who, now: context.now, tell: (happening) => recordEvent(tx, who, context.now, happening) }
        const row = await lockRecord(tx, keeper, who, item.id)
        known.number = calledIn(keeper, row)
        known.version = row.version
        known.before = field === 'retired' ? Number(row.retiredAt !== null) : ((row[field] as FieldValue | undefined) ?? null)
        return field === 'retired' ? retire(changing, register, item) : change(changing, register, field, item)
      })
      rows.push({ ...known, changed: true, version: done, reasons: [] })
    } catch (error) {
      rows.push({ ...known, changed: false, reasons: refusedFor(error) })
    }
  }
  const place = new Map(items.map((item, index) => [item.id, index]))
  return { rows: rows.sort((a, b) => place.get(a.id)! - place.get(b.id)!) }
})

/** @returns its version then */
async function retire(changing: Changing, register: RegisterName, { id, version, value }: Item): Promise<number> {
  if (value) await retireRecord(changing, KEEPERS[register], { id, version })
  else await restoreRecord(changing, KEEPERS[register], { id, version })
  return version + 1
}

/** One field, held to what its form is held to. @returns its version then */
async function change(changing: Changing, register: RegisterName, field: string, { id, version, value }: Item): Promise<number> {
  const { error, value: read } = KINDS[register].edit.input!.validate({ id, version, [field]: value })
  if (error) throw new Refusal(reasonsOf(error))
  const { id: _, version: __, ...sent } = read as { id: number; version: number }
  const { after } = await editRecord(changing, KEEPERS[register], { id, version }, sent)
  return after.version
}
