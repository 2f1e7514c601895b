import { eq } from 'drizzle-orm'
import { settings } from '../tables'
import type { Tx } from './database'

/** Sets what lockSetting would find. */
export async function saveSetting(tx: Tx, name: string, value: unknown): Promise<void> {
  await tx.insert(settings).values({ name, value }).onDuplicateKeyUpdate({ set: { value } })
}

/** A setting, locked until the change ends; made with this value when it is not there yet. */
export async function lockSetting(tx: Tx, name: string, otherwise: unknown): Promise<unknown> {
  // Looked for before it is made: an insert that finds a row takes a weaker lock, and two that then want more wait for each other.
  const find = () => tx.select({ value: settings.value }).from(settings).where(eq(settings.name, name)).for('update')
  const [found] = await find()
  if (found) return found.value
  await tx.insert(settings).ignore().values({ name, value: otherwise })
  const [made] = await find()
  return made!.value
}
