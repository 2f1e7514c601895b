import type { Rule } from 'eslint'

/** Which room each table belongs to: the file of `server/tables` it stands in. */
export function tableOwners(folder: string): Map<string, string>
export const ownTables: Rule.RuleModule
