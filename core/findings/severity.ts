import type { Priority } from '#core/requests'

/** How bad what was found is, for whoever stands before it; the worst last. */
export const FINDING_SEVERITIES = ['watch', 'repair', 'unsafe'] as const
export type FindingSeverity = (typeof FINDING_SEVERITIES)[number]
export const FINDING_SEVERITY_NAMES: Record<FindingSeverity, string> = { watch: 'To watch', repair: 'Needs repair', unsafe: 'Unsafe' }

/** How soon an order about it is to be done, until the desk says otherwise (our own choice, no source). */
const PRIORITY: Record<FindingSeverity, Priority> = { watch: 'deferred', repair: 'routine', unsafe: 'urgent' }
export const priorityOf = (severity: FindingSeverity): Priority => PRIORITY[severity]

/** @returns the worst of at least one */
export const worstSeverity = (severities: readonly FindingSeverity[]): FindingSeverity =>
  severities.reduce((worst, one) => (FINDING_SEVERITIES.indexOf(one) > FINDING_SEVERITIES.indexOf(worst) ? one : worst))
