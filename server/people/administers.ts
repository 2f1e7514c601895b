import { outOfReach, sitesOf } from '#core/people'
import { askerById } from '#server/kit'
import type { Asker, Reader } from '#server/kit'

/** Whether somebody administers every site at which another works. */
export async function administers(db: Reader, who: Asker, accountId: number): Promise<boolean> {
  const sites = sitesOf(who.grants, 'setup.edit')
  if (sites === null) return true
  const other = sites.length ? await askerById(db, accountId) : null
  return other !== null && outOfReach(sites, other.grants, []).length === 0
}
