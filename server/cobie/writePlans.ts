import type { CobieWrites } from '#core/cobie'
import { ruleSays } from '#core/preventive'
import { keepPlan } from '#server/preventive/records'
import type { Taking } from './writeRecords'

/** Preventive plans of a workbook, each told of on its asset. */
export async function writePlans({ tx, tell }: Taking, siteId: number, today: string, jobs: CobieWrites['jobs'], assetIds: Map<string, number>): Promise<void> {
  for (const { id, name, tag, rule, startsOn } of jobs) {
    const assetId = assetIds.get(tag)!
    await keepPlan(tx, { id, siteId, name, assetId, rule, startsOn }, today)
    await tell({ kind: 'cobie.plan', siteId, register: 'assets', recordId: assetId, details: { plan: name, every: ruleSays(rule), fresh: id === null } })
  }
}
