import type { OwnKind, OwnShape } from '#core/own'
import { choiceKey, OWN_COLUMNS } from '#core/own'
import type { World } from './world'

interface Spec {
  kind: OwnKind
  label: string
  shape: OwnShape
  unit?: string
  choices?: string[]
}

/** What the station keeps beside what is there: for its chillers, its keys, its purchases and its visitors. Invented. */
export function makeOwnFields(world: World): void {
  const field = makeField(world)
  const refrigerant = field({ kind: 'assets', label: 'Refrigerant', shape: 'choice', choices: ['R-290', 'R-744', 'R-1234ze', 'R-134a'] })
  const charge = field({ kind: 'assets', label: 'Charge', shape: 'number', unit: 'kg' })
  const checked = field({ kind: 'assets', label: 'Leak check until', shape: 'date' })
  const manual = field({ kind: 'assets', label: 'Manual', shape: 'link' })
  const cold = world.rows.assets.filter((row) => row.classCode === 'D3030')
  cold.forEach((asset, index) => {
    refrigerant(asset.id!, ['r_290', 'r_744', 'r_1234ze', 'r_134a'][index % 4]!)
    charge(asset.id!, [1.2, 18.5, 42, 7.75][index % 4]!)
    if (index % 3) checked(asset.id!, new Date(world.now.getTime() + (index * 13 - 40) * 86_400_000).toISOString().slice(0, 10))
    if (index % 5 === 0) manual(asset.id!, `https://manuals.northcold.example/${String(asset.model ?? asset.tag).toLowerCase()}`)
  })
  const keys = field({ kind: 'places', label: 'Key number', shape: 'text' })
  const quiet = field({ kind: 'places', label: 'Animals inside', shape: 'flag' })
  const holder = field({ kind: 'places', label: 'Key holder', shape: 'person' })
  world.rows.places
    .filter((row) => row.kind === 'space')
    .forEach((place, index) => {
      if (index % 4 === 0) keys(place.id!, `K-${String(400 + index)}`)
      if (index % 9 === 0) quiet(place.id!, 1)
      if (index % 11 === 0) holder(place.id!, world.rows.people[(index * 7) % world.rows.people.length]!.id!)
    })
  const purchase = field({ kind: 'orders', label: 'Purchase number', shape: 'text' })
  const shutdown = field({ kind: 'orders', label: 'Plant stands still', shape: 'number', unit: 'h' })
  world.rows.orders
    .filter((row) => row.estimateMinor && row.estimateMinor > 15_000)
    .forEach((order, index) => {
      purchase(order.id!, `PN-${2600 + index}`)
      if (index % 3 === 0) shutdown(order.id!, 0.5 + (index % 8) / 2)
    })
  const visit = field({ kind: 'requests', label: 'Visitors on', shape: 'date' })
  world.rows.requests
    .slice(-60)
    .filter((_, index) => index % 12 === 0)
    .forEach((request, index) => visit(request.id!, new Date(world.now.getTime() + (index + 2) * 86_400_000).toISOString().slice(0, 10)))
}

/** Adds a field and answers what writes into it. */
function makeField(world: World) {
  return ({ kind, label, shape, unit, choices = [] }: Spec) => {
    const taken: string[] = []
    const keyed = choices.map((name) => {
      const key = choiceKey(name, taken)
      taken.push(key)
      return { key, name }
    })
    const position = world.rows.ownFields.filter((row) => row.kind === kind).length + 1
    const { id } = world.add('ownFields', { kind, label, shape, unit: unit ?? null, choices: keyed, position })
    return (recordId: number, value: string | number): void => {
      world.put('ownValues', { fieldId: id, recordId, [OWN_COLUMNS[shape]]: value })
      if (!world.rows.ownVersions.some((row) => row.kind === kind && row.recordId === recordId)) world.put('ownVersions', { kind, recordId, version: 1 })
    }
  }
}
