import { eq } from 'drizzle-orm'
import { attributesOf } from '#core/requests'
import type { ServiceAttribute } from '#core/requests'
import type { Reader } from '#server/kit'
import { offeredCategories } from '#server/requests'
import { categories } from '../tables'
import { StandardError } from './format'

export interface ServiceRow {
  service_code: string
  service_name: string
  description: string
  metadata: boolean
  type: 'realtime'
  keywords: string
  group: string
}

/** What can be reported: every category offered, with the one above it as its group. */
export async function listServices(db: Reader): Promise<ServiceRow[]> {
  const [offered, codes] = await Promise.all([offeredCategories(db), db.select({ id: categories.id, code: categories.code }).from(categories)])
  const codeOf = new Map(codes.map((row) => [row.id, row.code]))
  return offered.map((one) => ({
    service_code: codeOf.get(one.id)!,
    service_name: one.name,
    description: one.hint ?? one.name,
    metadata: one.questions.length > 0,
    // The request is there, with its number, before we answer.
    type: 'realtime',
    keywords: (one.hint ?? '').split(/,\s*/).filter(Boolean).join(','),
    group: offered.find((above) => above.id === one.parentId)?.name ?? one.name,
  }))
}

/** The category behind a service code, with its questions. @throws StandardError 404 */
export async function serviceByCode(db: Reader, code: string) {
  const [row] = await db.select({ id: categories.id }).from(categories).where(eq(categories.code, code))
  const found = row && (await offeredCategories(db)).find((one) => one.id === row.id)
  if (!found) throw new StandardError(404, [`service_code ${code} was not found.`])
  return found
}

export async function serviceDefinition(db: Reader, code: string): Promise<{ service_code: string; attributes: ServiceAttribute[] }> {
  return { service_code: code, attributes: attributesOf((await serviceByCode(db, code)).questions) }
}
