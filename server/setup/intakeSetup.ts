import { asc, desc } from 'drizzle-orm'
import type { IntakeSetup } from '#contract/setup'
import { counterFieldsOf, OCCASIONS, USUAL_WORDINGS } from '#core/requests'
import { withinSites } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { newestForms } from '#server/requests'
import { apiKeys, categories, mailWordings, sites } from '../tables'

export async function readIntakeSheet(db: Reader, who: Asker): Promise<Outgoing<IntakeSetup>> {
  const siteRows = await db.select().from(sites).where(withinSites(who, sites.id)).orderBy(asc(sites.id))
  const categoryRows = await db.select().from(categories).orderBy(asc(categories.position), asc(categories.id))
  const forms = await newestForms(db)
  const own = await db.select().from(mailWordings)
  const keys = await db.select().from(apiKeys).where(withinSites(who, apiKeys.siteId)).orderBy(desc(apiKeys.id))
  return {
    everywhere: who.siteIds === null,
    sites: siteRows.map(({ id, code, name, deskEmail, counterFields }) => ({
      id,
      code,
      name,
      deskEmail,
      fields: counterFieldsOf(counterFields),
    })),
    categories: categoryRows.map(({ retiredAt, ...row }) => ({
      ...row,
      retired: retiredAt !== null,
      round: forms.get(row.id)?.round ?? 0,
      questions: forms.get(row.id)?.questions ?? [],
    })),
    wordings: siteRows.flatMap((site) =>
      OCCASIONS.map((occasion) => {
        const set = own.find((row) => row.siteId === site.id && row.occasion === occasion)
        return {
          siteId: site.id,
          occasion,
          own: !!set,
          subject: set?.subject ?? USUAL_WORDINGS[occasion].subject,
          text: set?.text ?? USUAL_WORDINGS[occasion].text,
        }
      }),
    ),
    apiKeys: keys.map(({ id, siteId, name, createdAt, lastUsedAt, revokedAt }) => ({ id, siteId, name, createdAt, lastUsedAt, revoked: revokedAt !== null })),
  }
}
