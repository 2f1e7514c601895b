import type { Setting } from './simulate'

const DAY = 86_400_000
const MONTHS = 13

/** What counts on the plant, and how much it runs a day. Invented. */
const METERS: { tag: RegExp; name: string; unit: string; perDay: [number, number]; start: number; rollsAt?: string; most: number }[] = [
  { tag: /^SP-/, name: 'Running hours', unit: 'h', perDay: [14, 20], start: 18_400, most: 6 },
  { tag: /^CH-\d$/, name: 'Running hours', unit: 'h', perDay: [9, 15], start: 22_750, most: 2 },
  { tag: /^GEN-1$/, name: 'Running hours', unit: 'h', perDay: [0.05, 0.2], start: 311, most: 1 },
  { tag: /^AIR-1$/, name: 'Running hours', unit: 'h', perDay: [1, 3], start: 2_940, most: 1 },
  { tag: /^SF-/, name: 'Water filtered', unit: 'm3', perDay: [180, 320], start: 61_000, rollsAt: '100000', most: 3 },
]

/** Read about once a month by whoever looks after the plant; two machines could not be used for a while. */
export function makeMeters({ world, assets }: Setting): void {
  const { rows, rng, now } = world
  const reader = rows.accounts.find(({ email }) => email === 'fintan.rosewarne@skerry.example')!
  const name = rows.people.find(({ id }) => id === reader.personId)!.name
  const by = { actorId: reader.id!, actorName: name }
  for (const { tag, name: meterName, unit, perDay, start, rollsAt, most } of METERS)
    for (const asset of assets.filter((one) => tag.test(one.tag)).slice(0, most)) {
      const meter = world.add('meters', { assetId: asset.id, name: meterName, unit, rollsAt: rollsAt ?? null })
      let shown = start + rng.int(0, 900)
      let last = now.getTime() - (MONTHS * 30 + 5) * DAY
      for (let month = 0; month < MONTHS; month++) {
        const at = new Date(now.getTime() - (MONTHS - month) * 30 * DAY + rng.int(0, 6) * DAY + rng.int(0, 300) * 60_000)
        const [least, highest] = perDay
        shown += ((at.getTime() - last) / DAY) * (least + ((highest - least) * rng.int(0, 100)) / 100)
        if (rollsAt) shown %= Number(rollsAt)
        last = at.getTime()
        const value = unit === 'm3' ? String(Math.floor(shown)) : shown.toFixed(1)
        world.add('readings', { meterId: meter.id, value, at, readBy: name })
        const of = { siteId: 1, register: 'assets' as const, recordId: asset.id }
        world.add('events', { ...of, at, kind: 'meter.read', ...by, details: { meter: meterName, unit, value } })
      }
    }
  for (const [tag, daysAgo, hours, reason] of [
    ['CH-1', 61, 9, 'Compressor A tripped'],
    ['LIFT-1', 19, 5, 'Door would not close'],
    ['LIFT-1', 47, 3, 'Door would not close'],
  ] as const) {
    const asset = assets.find((one) => one.tag === tag)
    if (!asset) continue
    const fromAt = new Date(now.getTime() - daysAgo * DAY)
    const untilAt = new Date(fromAt.getTime() + hours * 3_600_000)
    world.add('downtimes', { assetId: asset.id, mark: `demo-downtime-${tag}-${daysAgo}`, fromAt, untilAt, reason, saidBy: name })
    const details = { asset: tag, from: fromAt.toISOString(), until: untilAt.toISOString() }
    world.add('events', { siteId: 1, register: 'assets', recordId: asset.id, at: untilAt, kind: 'downtime.say', ...by, reason, details })
  }
}
