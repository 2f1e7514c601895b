import type { World } from './world'

/** What many orders are made from at once. */
export function makeTemplates(world: World): void {
  const { rows } = world
  const trade = (code: string) => rows.trades.find((one) => one.code === code)?.id ?? null
  const category = (code: string) => rows.categories.find((one) => one.code === code)?.id ?? null
  const method = (code: string) => rows.methods.find((one) => one.code === code)?.id ?? null
  const common = { siteId: 1, teamId: null, leadId: null, supervisorId: null, payerRule: 'place' as const, payerId: null }
  world.add('orderTemplates', {
    ...common,
    name: 'Rooms painted before the season',
    kind: 'improvement',
    summary: 'Walls painted, {code} {name}',
    description: 'Wash, fill and paint the walls in the colour of the house. Ask the lodger two days before.',
    priority: 'deferred',
    categoryId: category('paint'),
    tradeId: trade('painting'),
    estimateMinor: 18_000,
    dueDays: 60,
  })
  world.add('orderTemplates', {
    ...common,
    name: 'Lights looked over',
    kind: 'inspection',
    summary: 'Lights looked over, {code}',
    description: 'Switch on every light and every emergency light, note what is dark, and renew tubes and lamps.',
    priority: 'routine',
    categoryId: category('light'),
    tradeId: trade('electrical'),
    methodId: method('M-LAMP-1'),
    estimateMinor: 4_500,
    dueDays: 21,
  })
}
