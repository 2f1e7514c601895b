const UNITS: Record<string, string> = { DAILY: 'day', WEEKLY: 'week', MONTHLY: 'month', YEARLY: 'year' }

/** How often a rule of RFC 5545 comes round: each so many days, weeks, months or years. Null for one that is told otherwise. */
export function frequencyOf(rule: string): { every: number; unit: string } | null {
  const part = (name: string) => new RegExp(`(?:^|;)${name}=([^;]+)`).exec(rule)?.[1]
  const unit = UNITS[part('FREQ') ?? '']
  return unit ? { every: Number(part('INTERVAL') ?? 1), unit } : null
}

/** "every 3 months"; the rule itself where it cannot be said so. */
export function ruleSays(rule: string): string {
  const found = frequencyOf(rule)
  if (!found) return rule
  return found.every === 1 ? `every ${found.unit}` : `every ${found.every} ${found.unit}s`
}
