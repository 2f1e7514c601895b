import type { EventKind } from '#core/events'
import { moveTransfer, standsAt } from '#core/assets'
import type { TransferKind, TransferMove } from '#core/assets'
import type { Setting } from './simulate'

const DAY = 86_400_000

/** What is known of machines besides their make: how they are, how much hangs on them, what their warranty covers; and those that went elsewhere. */
export function makeRegisters(setting: Setting): void {
  describeAssets(setting)
  agreeTerms(setting)
  describeCrew(setting)
  describeVendors(setting)
  const { world } = setting
  const hatchery = world.rows.places.find((row) => row.kind === 'space' && world.rows.sites.find((site) => site.id === row.siteId)!.code !== 'SKE')!
  const store = world.rows.places.find((row) => row.code.startsWith('SLI-') && row.siteId !== hatchery.siteId)!
  const machines = (prefix: string) => world.rows.assets.filter((row) => row.tag.startsWith(prefix))
  transfer(setting, { tag: machines('TP-').at(-1)!.tag, kind: 'move', to: hatchery.id!, days: 41, reason: 'The hatchery runs short of flow', moves: ['agree'] })
  transfer(setting, { tag: machines('PS-').at(-1)!.tag, kind: 'loan', to: hatchery.id!, days: 12, back: 9, reason: 'Larval tanks foam up', moves: ['agree'] })
  transfer(setting, {
    tag: machines('PS-').at(-2)!.tag,
    kind: 'loan',
    to: store.id!,
    days: 30,
    back: -16,
    reason: 'Cleaned and tried out',
    moves: ['agree', 'giveBack'],
  })
  transfer(setting, {
    tag: machines('SF-').at(-1)!.tag,
    kind: 'move',
    to: hatchery.id!,
    days: 1,
    reason: 'Not needed here since the new filter hall',
    moves: [],
  })
}

function describeAssets({ world }: Setting): void {
  const { rng } = world
  const vital = /Freezer|Tank pump|Seawater|Cold room|chiller/i
  for (const row of world.rows.assets) {
    const repairs = world.rows.orders.filter((order) => order.assetId === row.id && order.kind === 'repair').length
    row.condition = repairs > 6 ? 'failing' : repairs > 3 ? 'poor' : repairs > 0 ? 'fair' : rng.int(0, 2) ? 'good' : null
    row.criticality = vital.test(row.name) ? 'vital' : /Lift|Generator|Fire/.test(row.name) ? 'high' : rng.int(0, 3) ? null : 'low'
    row.lifeYears = rng.int(0, 1) ? rng.pick([10, 12, 15, 20, 25]) : null
    row.warrantyFrom = row.installedOn
    row.warrantyCovers = rng.pick(['parts', 'labour', 'both'])
  }
  const troubled = world.rows.assets.find((row) => row.tag === 'F-003')
  if (troubled) Object.assign(troubled, { warrantyCovers: 'both', warrantyTerms: 'Compressor and controls. The maker wants the alarm log with the claim.' })
}

/** What technicians may do by their papers, some of which end soon or have ended; where their day begins; a late shift. Invented. */
function describeCrew({ world }: Setting): void {
  const skills = ['Electrical isolation', 'Refrigerant handling', 'Work at height', 'Confined spaces', 'First aid']
  const ofTrade: Record<string, string> = { Electrical: 'Electrical isolation', 'HVAC and refrigeration': 'Refrigerant handling' }
  const workshop = world.rows.places.find((row) => row.code.startsWith('SLI-'))!
  const on = (days: number) => new Date(world.now.getTime() + days * DAY).toISOString().slice(0, 10)
  world.rows.technicians.forEach((technician, index) => {
    technician.homePlaceId = workshop.id!
    const trade = world.rows.technicianTrades.find((row) => row.technicianId === technician.id)?.tradeId
    const own = ofTrade[world.rows.trades.find((row) => row.id === trade)?.name ?? '']
    const others = skills.filter((name) => name !== own)
    for (const turn of [0, 1, 2].slice(0, 1 + (index % 3))) {
      const name = turn === 0 && own ? own : others[(index + turn * 2) % others.length]!
      const validUntil = (index + turn) % 4 === 3 ? null : on(((index * 83 + turn * 211) % 720) - 30)
      world.add('technicianSkills', { technicianId: technician.id!, name, certificate: `C-${2400 + index * 7 + turn}`, validUntil })
    }
    if (index % 5 === 1)
      world.add('shiftExceptions', {
        technicianId: technician.id!,
        day: on(3 + index),
        stretches: [{ from: '12:00', to: '20:00' }],
        reason: 'Evening shutdown',
      })
  })
}

/** Whom to call at vendors, and those that come to one site alone. Invented. */
function describeVendors({ world }: Setting): void {
  const roles = ['Job desk', 'Out of hours', 'Accounts']
  world.rows.vendors.forEach((vendor, index) => {
    const domain = vendor.email.split('@')[1]!
    for (const turn of [0, 1].slice(0, 1 + (index % 2))) {
      const name = ['Asta Quillfeather', 'Bevan Loe', 'Corin Maddern', 'Dilys Oram', 'Evert Pascoe'][(index + turn * 2) % 5]!
      const role = roles[(index + turn) % 3]!
      world.add('vendorContacts', {
        vendorId: vendor.id!,
        name,
        role,
        email: `${role.toLowerCase().replaceAll(' ', '.')}@${domain}`,
        phone: `+353 1 555 03${10 + index}`,
      })
    }
    if (index === 4) world.put('vendorSites', { vendorId: vendor.id!, siteId: world.rows.sites[0]!.id! })
  })
}

function agreeTerms({ world }: Setting): void {
  for (const row of world.rows.vendors) Object.assign(row, { minimumMinutes: 60, stepMinutes: 15, contractNumber: `C-${2_400 + row.id! * 7}` })
}

/** A transfer played through the rules: asked for by one coordinator and decided by another. */
function transfer(
  { world, staff }: Setting,
  {
    tag,
    kind,
    to,
    days,
    back,
    reason,
    moves,
  }: { tag: string; kind: TransferKind; to: number; days: number; back?: number; reason: string; moves: TransferMove[] },
): void {
  const asset = world.rows.assets.find((row) => row.tag === tag)!
  const placeOf = (id: number) => world.rows.places.find((row) => row.id === id)!
  const siteName = (id: number) => world.rows.sites.find((row) => row.id === id)!.name
  const [from, there] = [placeOf(asset.placeId), placeOf(to)]
  const asked = new Date(world.now.getTime() - days * DAY)
  const by = (name: string) => ({ actorId: staff.get(name)!, actorName: name })
  const row = world.add('transfers', {
    assetId: asset.id!,
    kind,
    state: 'asked',
    fromSiteId: from.siteId,
    fromPlaceId: from.id!,
    fromParentId: asset.parentId ?? null,
    toSiteId: there.siteId,
    toPlaceId: there.id!,
    reason,
    returnBy: kind === 'loan' ? new Date(world.now.getTime() + (back ?? 14) * DAY).toISOString().slice(0, 10) : null,
    askedBy: staff.get('Maren Quill')!,
    askedAt: asked,
  })
  const details = {
    asset: `${asset.tag} ${asset.name}`,
    from: `${from.code} ${from.name}, ${siteName(from.siteId)}`,
    to: `${there.code} ${there.name}, ${siteName(there.siteId)}`,
    transferId: row.id,
  }
  const tell = (kindOf: EventKind, at: Date, who: string, more: object = {}) =>
    world.add('events', { at, kind: kindOf, siteId: there.siteId, register: 'assets', recordId: asset.id!, ...by(who), details: { ...details, ...more } })
  tell('asset.ask', asked, 'Maren Quill', { kind, returnBy: row.returnBy })
  moves.forEach((move, index) => {
    const at = new Date(asked.getTime() + (index + 1) * 5 * 3_600_000 + index * 10 * DAY)
    const { state } = moveTransfer({ kind, state: row.state, askedByMe: false, answersThere: true, answersHere: true }, move)
    Object.assign(row, { state, ...(move === 'giveBack' ? { returnedAt: at } : { decidedBy: staff.get('Tobias Achterberg')!, decidedAt: at }) })
    const place = standsAt(state!) === 'to' ? there : from
    Object.assign(asset, { placeId: place.id!, siteId: place.siteId })
    tell(move === 'giveBack' ? 'asset.giveBack' : 'asset.agree', at, 'Tobias Achterberg')
  })
}
