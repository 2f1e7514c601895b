import { COVERS, CONDITION_NAMES, CRITICALITIES, OWNER_NAMES, UNIFORMAT } from '#core/assets'
import type { AssetFields } from '#core/assets'
import { currencyDecimals } from '#core/kit'
import { MOST_TEXT, readOwnValue } from '#core/own'
import type { OwnField } from '#core/own'
import { readDocument } from './documents'
import { readJob } from './jobs'
import { COBIE_STANDINGS } from './known'
import type { CobieAssetFields, CobieKnown, CobieRow, CobieStanding, CobieWrites, Named, ReadCobie } from './known'
import type { CobieAsset } from './records'
import { folded, linesOf, listed, same } from './lines'
import type { Line } from './lines'
import { ATTRIBUTE_FIELDS, COBIE_SHEET_NAMES, tagOf } from './sheets'
import type { CobieSheet, CobieTables } from './sheets'
import { readSystems } from './systems'
import { dayIn, durationIn, untilOf, yearsOf } from './terms'
import type { Duration } from './terms'

/**
 * Reads the sheets of a COBie workbook and holds them against what is there. An empty cell, or "n/a", leaves what is
 * there. @param keepUnknown whether what is no field here becomes an own field @returns a sentence when it cannot be read at all
 */
export function readCobie(tables: CobieTables, known: CobieKnown, keepUnknown: boolean): ReadCobie | { wrong: string } {
  const facilities = linesOf(tables, 'Facility')
  if (!facilities.length) return { wrong: 'There is no Facility in the workbook. A COBie workbook tells of one building, on a sheet called Facility.' }
  if (facilities.length > 1) return { wrong: `The workbook tells of ${facilities.length} facilities. Take one building at a time.` }
  const reading = new Reading(known, keepUnknown)
  reading.facility(facilities[0]!)
  for (const line of linesOf(tables, 'Contact')) reading.contact(line)
  for (const line of linesOf(tables, 'Floor')) reading.floor(line)
  for (const line of linesOf(tables, 'Space')) reading.space(line)
  for (const line of linesOf(tables, 'Zone')) reading.zone(line)
  for (const line of linesOf(tables, 'Type')) reading.type(line)
  reading.attributes(linesOf(tables, 'Attribute'))
  const components = linesOf(tables, 'Component')
  reading.systems(linesOf(tables, 'System'), components)
  for (const line of components) reading.component(line)
  for (const line of linesOf(tables, 'Spare')) reading.thing('Spare', line)
  for (const line of linesOf(tables, 'Resource')) reading.thing('Resource', line)
  for (const line of linesOf(tables, 'Job')) reading.job(line)
  for (const line of linesOf(tables, 'Document')) reading.document(line)
  return reading.done()
}

type TypeFields = Pick<CobieAsset, 'classCode' | 'maker' | 'model' | 'priceMinor' | 'lifeYears' | 'warrantyCovers' | 'warrantyTerms' | 'vendor'>
interface ReadType {
  fields: Partial<TypeFields>
  warranty: Duration | null
  beyond: [string, string][]
}
interface ReadAttribute {
  line: Line
  label: string
  value: string
  unit: string
}

class Reading {
  private readonly rows: CobieRow[] = []
  private readonly counts = Object.fromEntries(
    COBIE_SHEET_NAMES.map((sheet) => [sheet, Object.fromEntries(COBIE_STANDINGS.map((one) => [one, 0]))]),
  ) as ReadCobie['counts']
  private readonly unknown = new Map<string, ReadCobie['unknown'][number]>()
  private readonly writes: CobieWrites = {
    within: '',
    building: null,
    floors: [],
    spaces: [],
    payers: [],
    vendors: [],
    parts: [],
    equipment: [],
    assets: [],
    own: [],
    jobs: [],
    documents: [],
  }
  private readonly placeBy: Map<string, CobieKnown['places'][number]>
  private readonly assetBy: Map<string, CobieKnown['assets'][number]>
  private readonly vendorBy: Map<string, string>
  private readonly serials = new Map<string, string>()
  private readonly retired: Set<string>
  private building: string | null = null
  /** Codes as they are written in the register, by how they are written here; null for those that cannot be used. */
  private readonly floors = new Map<string, string | null>()
  private readonly spaces = new Map<string, string | null>()
  private readonly types = new Map<string, ReadType | null>()
  private readonly tags = new Map<string, number>()
  private readonly ofComponents = new Map<string, ReadAttribute[]>()
  /** What each component is part of, and which other systems it is in, by their sheet; by its tag. */
  private partOf: ReadonlyMap<string, string> = new Map()
  private inSystems: ReadonlyMap<string, string[]> = new Map()
  private readonly componentTags = new Map<string, string>()
  /** Tags of components that can be taken, by the type they are of. */
  private readonly ofType = new Map<string, string[]>()

  constructor(
    private readonly known: CobieKnown,
    private readonly keepUnknown: boolean,
  ) {
    this.retired = new Set(known.retired)
    this.placeBy = new Map(known.places.map((place) => [folded(place.code), place]))
    this.assetBy = new Map(known.assets.map((asset) => [folded(asset.tag), asset]))
    this.vendorBy = new Map(known.vendors.map(({ name, email }) => [folded(email), name]))
    for (const { serial, maker, tag } of known.assets) if (serial) this.serials.set(folded(`${maker ?? ''} ${serial}`), tag)
  }

  done(): ReadCobie {
    this.dropLostParents()
    return { rows: this.rows, counts: this.counts, unknown: [...this.unknown.values()], writes: this.writes }
  }

  /** What would be part of something that cannot be taken goes in without it. */
  private dropLostParents(): void {
    const fresh = new Set(this.writes.assets.map(({ tag }) => folded(tag)))
    for (const { tag, fields } of this.writes.assets) {
      const { parent } = fields
      if (!parent || this.assetBy.has(folded(parent)) || fresh.has(folded(parent))) continue
      delete fields.parent
      const row = this.rows.find((one) => one.sheet === 'Component' && one.name === tag)
      row?.sentences.push(`It is not made part of ${parent}, which cannot be taken.`)
    }
  }

  private tell(sheet: CobieSheet, { line }: Line, name: string, standing: CobieStanding, ...sentences: string[]): void {
    this.counts[sheet][standing]++
    if (standing !== 'same') this.rows.push({ sheet, line, name, standing, sentences })
  }

  /** Why something that is retired is not made a second time; null where it is not. */
  private whyRetired(what: 'place' | 'asset' | 'part' | 'equipment' | 'vendor', code: string): string | null {
    return this.retired.has(`${what} ${folded(code)}`) ? `${code} is retired here. Take it into use again first.` : null
  }

  facility(line: Line): void {
    const code = line.cell('Name')
    const name = (line.cell('Description') || code).slice(0, 120)
    if (!code || code.length > 32)
      return this.tell('Facility', line, code, 'bad', code ? 'Its name is its code here, and longer than 32 signs.' : 'It has no name.')
    const known = this.placeBy.get(folded(code))
    const gone = known ? null : this.whyRetired('place', code)
    if (gone) return this.tell('Facility', line, code, 'bad', gone)
    if (known && !['building', 'grounds'].includes(known.kind))
      return this.tell('Facility', line, code, 'bad', `${known.code} is a ${known.kind} here, not a building.`)
    this.building = known?.code ?? code
    this.writes.within = this.building
    this.floors.set(folded(code), this.building)
    this.place('Facility', line, known, { code, name }, (named) => (this.writes.building = named))
  }

  /** A place that is there, there under another name, or not there yet. */
  private place(
    sheet: CobieSheet,
    line: Line,
    known: { id: number; code: string; name: string } | undefined,
    said: { code: string; name: string },
    write: (named: Named) => void,
  ): void {
    this.beyond(line.beyond, 'places', known?.code ?? said.code)
    if (!known) {
      write({ id: null, ...said })
      return this.tell(sheet, line, said.code, 'new')
    }
    const renamed = line.cell('Description') && said.name !== known.name
    if (renamed) write({ id: known.id, code: known.code, name: said.name })
    this.tell(sheet, line, known.code, renamed ? 'changed' : 'same', ...(renamed ? [`${known.name} becomes ${said.name}.`] : []))
  }

  floor(line: Line): void {
    const code = line.cell('Name')
    if (this.building && same(code, this.building)) return this.tell('Floor', line, this.building, 'same')
    const known = this.placeBy.get(folded(code))
    const bad = !this.building
      ? 'Its building cannot be taken.'
      : !code || code.length > 32
        ? 'It needs a name of at most 32 signs: that is its code here.'
        : this.floors.has(folded(code))
          ? 'There is a floor of this name in the workbook already.'
          : known && known.kind !== 'floor'
            ? `${known.code} is a ${known.kind} here, not a floor.`
            : known && known.on !== this.building
              ? `${known.code} is a floor of ${known.on} here.`
              : known
                ? null
                : this.whyRetired('place', code)
    if (bad) {
      if (!this.floors.has(folded(code))) this.floors.set(folded(code), null)
      return this.tell('Floor', line, code, 'bad', bad)
    }
    this.floors.set(folded(code), known?.code ?? code)
    this.place('Floor', line, known, { code, name: (line.cell('Description') || code).slice(0, 120) }, (named) => this.writes.floors.push(named))
  }

  space(line: Line): void {
    const code = line.cell('Name')
    const floor = this.floors.get(folded(line.cell('FloorName')))
    const known = this.placeBy.get(folded(code))
    const bad =
      !code || code.length > 32
        ? 'It needs a name of at most 32 signs: that is its code here.'
        : this.spaces.has(folded(code))
          ? 'There is a space of this name in the workbook already.'
          : floor === undefined
            ? `There is no floor called “${line.cell('FloorName')}” in the workbook.`
            : floor === null
              ? 'Its floor cannot be taken.'
              : known && known.kind !== 'space'
                ? `${known.code} is a ${known.kind} here, not a space.`
                : known && known.on !== floor
                  ? `It is on ${known.on} here. A space is moved in the tree, so that everybody is told.`
                  : known
                    ? null
                    : this.whyRetired('place', code)
    if (bad) {
      if (!this.spaces.has(folded(code))) this.spaces.set(folded(code), null)
      return this.tell('Space', line, code, 'bad', bad)
    }
    this.spaces.set(folded(code), known?.code ?? code)
    const said = { code, name: (line.cell('Description') || code).slice(0, 120) }
    this.place('Space', line, known, said, (named) => this.writes.spaces.push({ ...named, floor: floor! }))
  }

  zone(line: Line): void {
    const code = line.cell('Name')
    const payer = this.known.payers.find((one) => same(one.code, code))
    const spaces = listed(line.cell('SpaceNames')).map((one) => this.spaces.get(folded(one)))
    if (spaces.some((one) => !one)) return this.tell('Zone', line, code, 'bad', 'It names a space that is not in the workbook or cannot be taken.')
    if (!payer || line.cell('Category') !== 'Payer') {
      for (const space of spaces) this.beyond([['Zone', code]], 'places', space!)
      return this.keepUnknown
        ? this.tell('Zone', line, code, 'same')
        : this.tell('Zone', line, code, 'left', 'Zones other than payers are kept as own fields, when that is wished.')
    }
    const changed = (spaces as string[]).filter((space) => this.placeBy.get(folded(space))?.payer !== payer.code)
    for (const space of changed) this.writes.payers.push({ code: space, payer: payer.code })
    this.tell('Zone', line, code, changed.length ? 'changed' : 'same', ...(changed.length ? [`${payer.code} pays for ${changed.join(', ')}.`] : []))
  }

  contact(line: Line): void {
    const email = line.cell('Email')
    const company = line.cell('Company').slice(0, 120)
    const phone = line.cell('Phone').slice(0, 40) || null
    if (!/^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(email) || email.length > 190) return this.tell('Contact', line, email, 'bad', 'It has no mail address.')
    const vendor = this.known.vendors.find((one) => same(one.email, email))
    if (vendor) {
      const changed = phone !== null && phone !== vendor.phone
      if (changed) this.writes.vendors.push({ ...vendor, phone })
      return this.tell('Contact', line, email, changed ? 'changed' : 'same', ...(changed ? [`Its phone becomes ${phone}.`] : []))
    }
    if (this.known.people.includes(folded(email))) return this.tell('Contact', line, email, 'same')
    const gone = this.whyRetired('vendor', email) ?? this.whyRetired('vendor', company)
    if (gone) return this.tell('Contact', line, email, 'left', gone)
    if (!company) return this.tell('Contact', line, email, 'left', 'It is of no company: people are entered under People.')
    const taken = this.known.vendors.find((one) => same(one.name, company)) ?? this.writes.vendors.find((one) => same(one.name, company))
    if (taken)
      return this.tell('Contact', line, email, 'left', `${taken.name} is there already, with ${taken.email}: further contacts are entered on its Portrait.`)
    this.vendorBy.set(folded(email), company)
    this.writes.vendors.push({ id: null, name: company, email, phone })
    this.tell('Contact', line, email, 'new', `A vendor: ${company}.`)
  }

  type(line: Line): void {
    const name = line.cell('Name')
    const sentences: string[] = []
    const decimals = currencyDecimals(this.known.currency)
    const number = (column: string, most: number): number | null => {
      const cell = line.cell(column)
      if (!cell) return null
      const read = Number(cell)
      if (/^\d+([.]\d+)?$/.test(cell) && read <= most) return read
      sentences.push(`${column} is no number: ${cell}.`)
      return null
    }
    const unit = (column: string) => line.cell(column)
    const cost = number('ReplacementCost', 2_000_000_000 / 10 ** decimals)
    const life = number('ExpectedLife', 10_000)
    const [parts, labour] = [number('WarrantyDurationParts', 100_000), number('WarrantyDurationLabor', 100_000)]
    const length = parts ?? labour
    const warranty = length === null ? null : durationIn(length, unit('WarrantyDurationUnit'))
    if (length !== null && !warranty) sentences.push(`WarrantyDurationUnit is none of day, week, month, year: ${unit('WarrantyDurationUnit') || 'nothing'}.`)
    const lasts = life === null ? null : durationIn(life, unit('DurationUnit'))
    if (life !== null && !lasts) sentences.push(`DurationUnit is none of day, week, month, year: ${unit('DurationUnit') || 'nothing'}.`)
    if (!name) sentences.unshift('It has no name.')
    if (this.types.has(folded(name))) sentences.push('There is a type of this name in the workbook already.')
    if (sentences.length) {
      if (!this.types.has(folded(name))) this.types.set(folded(name), null)
      return this.tell('Type', line, name, 'bad', ...sentences)
    }
    const code = /\b([A-G]\d{4})\b/.exec(line.cell('Category'))?.[1]
    const guarantor = this.vendorBy.get(folded(line.cell('WarrantyGuarantorParts') || line.cell('WarrantyGuarantorLabor')))
    const text = <Field extends keyof TypeFields>(field: Field, column: string, most: number) =>
      line.cell(column) ? { [field]: line.cell(column).slice(0, most) } : {}
    this.types.set(folded(name), {
      warranty,
      beyond: line.beyond,
      fields: {
        ...(code && UNIFORMAT[code] ? { classCode: code } : {}),
        ...text('maker', 'Manufacturer', 80),
        ...text('model', 'ModelNumber', 80),
        ...text('warrantyTerms', 'WarrantyDescription', 2000),
        ...(cost === null ? {} : { priceMinor: Math.round(cost * 10 ** decimals) }),
        ...(lasts ? { lifeYears: Math.min(200, yearsOf(lasts)) } : {}),
        ...(parts !== null || labour !== null ? { warrantyCovers: COVERS[parts === null ? 1 : labour === null ? 0 : 2] } : {}),
        ...(guarantor ? { vendor: guarantor } : {}),
      },
    })
    this.tell('Type', line, name, 'same')
  }

  /** Attributes are of components, spaces, floors or the building; those of anything else are passed over. */
  attributes(lines: Line[]): void {
    for (const line of lines) {
      const [sheet, row, label] = [line.cell('SheetName').toLowerCase(), line.cell('RowName'), line.cell('Name').slice(0, 60)]
      const value = line.cell('Value')
      if (!label || !row) this.tell('Attribute', line, label, 'bad', 'It does not say what it is called, or of which row it is.')
      else if (!value) this.tell('Attribute', line, label, 'same')
      else if (sheet === 'component') {
        const attribute = { line, label, value, unit: line.cell('Unit') }
        this.ofComponents.set(folded(row), [...(this.ofComponents.get(folded(row)) ?? []), attribute])
      } else if (['space', 'floor', 'facility'].includes(sheet)) {
        const code = (sheet === 'space' ? this.spaces : this.floors).get(folded(row))
        if (!code) this.tell('Attribute', line, label, 'bad', `There is no ${sheet} called “${row}” that can be taken.`)
        else this.ownValue(line, 'places', code, label, value)
      } else this.tell('Attribute', line, label, 'left', `Attributes of the sheet ${line.cell('SheetName') || '(none)'} are not kept.`)
    }
  }

  component(line: Line): void {
    const name = line.cell('Name')
    const tag = tagOf(line)
    const known = this.assetBy.get(folded(tag))
    const attributes = this.ofComponents.get(folded(name)) ?? this.ofComponents.get(folded(tag)) ?? []
    const typeName = line.cell('TypeName')
    const type = typeName ? this.types.get(folded(typeName)) : undefined
    const [first = ''] = listed(line.cell('Space'))
    const space = this.spaces.get(folded(first))
    const bad: string[] = []
    if (!tag || tag.length > 32) bad.push('It needs a tag of at most 32 signs: TagNumber, or its name.')
    const gone = known ? null : this.whyRetired('asset', tag)
    if (gone) bad.push(gone)
    const before = this.tags.get(folded(tag))
    if (before) bad.push(`Line ${before} has the same tag.`)
    if (typeName && type === undefined) bad.push(`There is no type called “${typeName}” in the workbook.`)
    if (type === null) bad.push('Its type cannot be taken.')
    if (first ? !space : !known) bad.push(first ? `There is no space called “${first}” that can be taken.` : 'It stands in no space.')
    const days = { installedOn: this.day(line, 'InstallationDate', bad), warrantyFrom: this.day(line, 'WarrantyStartDate', bad) }
    if (!before) this.tags.set(folded(tag), line.line)
    const serial = line.cell('SerialNumber').slice(0, 80)
    if (serial) {
      const key = folded(`${type?.fields.maker ?? known?.maker ?? ''} ${serial}`)
      const holder = this.serials.get(key)
      if (holder && !same(holder, tag)) bad.push(`${holder} has this serial number already.`)
      else this.serials.set(key, tag)
    }
    const fields: CobieAssetFields = {
      ...type?.fields,
      ...(line.cell('Description') || !known ? { name: (line.cell('Description') || name || tag).slice(0, 120) } : {}),
      ...(space ? { space } : {}),
      ...(serial ? { serial } : {}),
      ...(days.installedOn ? { installedOn: days.installedOn } : {}),
      ...(days.warrantyFrom ? { warrantyFrom: days.warrantyFrom } : {}),
    }
    const from = fields.warrantyFrom ?? known?.warrantyFrom ?? null
    if (from && type?.warranty) fields.warrantyUntil = untilOf(from, type.warranty)
    const above = this.partOf.get(folded(tag))
    if (above) fields.parent = this.assetBy.get(folded(above))?.tag ?? above
    const own: ReadAttribute[] = []
    for (const attribute of attributes) this.attribute(attribute, tag, known, fields, own)
    if (bad.length) {
      for (const { line: at, label } of own) this.tell('Attribute', at, label, 'bad', 'Its component cannot be taken.')
      return this.tell('Component', line, tag, 'bad', ...bad)
    }
    const at = known?.tag ?? tag
    const systems = this.inSystems.get(folded(tag))
    this.beyond([...(type?.beyond ?? []), ...line.beyond, ...(systems ? [[SYSTEM, systems.join(', ')] as [string, string]] : [])], 'assets', at)
    for (const called of [name, tag]) this.componentTags.set(folded(called), at)
    if (typeName) {
      const tags = this.ofType.get(folded(typeName))
      if (tags) tags.push(at)
      else this.ofType.set(folded(typeName), [at])
    }
    for (const { line: of, label, value } of own) this.ownValue(of, 'assets', at, label, value)
    if (!known) {
      this.writes.assets.push({ id: null, tag, fields })
      return this.tell('Component', line, tag, 'new')
    }
    const changed = Object.fromEntries(Object.entries(fields).filter(([field, value]) => value !== known[field as keyof CobieAsset])) as CobieAssetFields
    if (Object.keys(changed).length) this.writes.assets.push({ id: known.id, tag: known.tag, fields: changed })
    this.tell('Component', line, known.tag, Object.keys(changed).length ? 'changed' : 'same', ...changesSay(changed, known))
  }

  private day(line: Line, column: string, bad: string[]): string | null {
    const cell = line.cell(column)
    if (!cell) return null
    const day = dayIn(cell)
    if (!day) bad.push(`${column} is no day: ${cell}.`)
    return day
  }

  /** An attribute that is a field of assets goes there; the others are own fields. */
  private attribute(attribute: ReadAttribute, tag: string, known: CobieAsset | undefined, fields: CobieAssetFields, own: ReadAttribute[]): void {
    const { label, value, line } = attribute
    const refuse = (sentence: string) => this.tell('Attribute', line, label, 'bad', sentence)
    const is = (field: keyof typeof ATTRIBUTE_FIELDS) => same(label, ATTRIBUTE_FIELDS[field])
    if (is('condition')) {
      const found = keyNamed(CONDITION_NAMES, value)
      if (!found) return refuse(`${value} is none of ${Object.values(CONDITION_NAMES).join(', ')}.`)
      fields.condition = found
    } else if (is('criticality')) {
      const found = CRITICALITIES.find((one) => same(one, value))
      if (!found) return refuse(`${value} is none of ${CRITICALITIES.join(', ')}.`)
      fields.criticality = found
    } else if (is('owner')) {
      const found = keyNamed(OWNER_NAMES, value)
      if (!found) return refuse(`${value} is none of ${Object.values(OWNER_NAMES).join(', ')}.`)
      if (found !== (known?.owner ?? 'us')) return this.tell('Attribute', line, label, 'left', 'Whose it is goes with who pays: say both on its Portrait.')
    } else if (is('parent')) {
      if (same(value, tag)) return refuse('It cannot be part of itself.')
      fields.parent = this.assetBy.get(folded(value))?.tag ?? value
    } else if (is('note')) fields.note = value.slice(0, 4000)
    else if (is('warrantyUntil')) {
      const day = dayIn(value)
      if (!day) return refuse(`${value} is no day.`)
      fields.warrantyUntil = day
    } else return void own.push(attribute)
    this.tell('Attribute', line, label, 'same')
  }

  /** What stands in columns that are no field here. */
  private beyond(cells: [string, string][], on: 'places' | 'assets', code: string): void {
    for (const [label, value] of cells) this.own(on, code, label, value)
  }

  private ownValue(line: Line, on: 'places' | 'assets', code: string, label: string, value: string): void {
    const { standing, sentence } = this.own(on, code, label, value)
    this.tell('Attribute', line, `${label}, ${code}`, standing, ...(sentence ? [sentence] : []))
  }

  private own(on: 'places' | 'assets', code: string, label: string, value: string): { standing: CobieStanding; sentence?: string } {
    const field = this.known.ownFields.find((one) => one.kind === on && same(one.label, label))
    if (!field) {
      const key = `${on} ${folded(label)}`
      const one = this.unknown.get(key) ?? { label, on, rows: 0 }
      one.rows++
      this.unknown.set(key, one)
      if (!this.keepUnknown) return { standing: 'left', sentence: 'It is no field here; it can be kept as an own field.' }
      this.writes.own.push({ kind: on, code, fieldId: null, label: one.label, value: value.slice(0, MOST_TEXT) })
      return { standing: 'new' }
    }
    if (this.known.own[field.id]?.[code] === value) return { standing: 'same' }
    if (field.shape === 'person') return { standing: 'left', sentence: 'Persons are chosen on the Portrait.' }
    const read = readOwnValue(field, sentAs(field, value))
    if ('problem' in read) return { standing: 'bad', sentence: `${value}: ${read.problem}` }
    this.writes.own.push({ kind: on, code, fieldId: field.id, label: field.label, value: read.value })
    return { standing: 'changed', sentence: `${field.label} becomes ${value}.` }
  }

  systems(lines: Line[], components: Line[]): void {
    const read = readSystems(lines, components, this.keepUnknown || this.known.ownFields.some(({ kind, label }) => kind === 'assets' && same(label, SYSTEM)))
    this.partOf = read.partOf
    this.inSystems = read.others
    for (const { line, name, standing, sentences } of read.told) this.tell('System', line, name, standing, ...sentences)
  }

  thing(sheet: 'Spare' | 'Resource', line: Line): void {
    const code = sheet === 'Spare' ? line.cell('PartNumber') || line.cell('Name') : line.cell('Name')
    const name = (line.cell('Description') || line.cell('Name')).slice(0, 120)
    if (!code || code.length > 32) return this.tell(sheet, line, code, 'bad', `It needs a ${sheet === 'Spare' ? 'number' : 'name'} of at most 32 signs.`)
    const known = (sheet === 'Spare' ? this.known.parts : this.known.equipment).find((one) => same(one.code, code))
    const gone = known ? null : this.whyRetired(sheet === 'Spare' ? 'part' : 'equipment', code)
    if (gone) return this.tell(sheet, line, code, 'left', gone)
    const changed = known && known.name !== name
    const named = { id: known?.id ?? null, code: known?.code ?? code, name }
    if (!known || changed) {
      if (sheet === 'Spare') this.writes.parts.push({ ...named, unit: line.cell('Category').slice(0, 16) || 'each' })
      else this.writes.equipment.push(named)
    }
    this.tell(sheet, line, named.code, !known ? 'new' : changed ? 'changed' : 'same', ...(changed ? [`${known.name} becomes ${name}.`] : []))
  }

  job(line: Line): void {
    const named = (task: string) => this.componentTags.get(folded(task))
    const { name, standing, sentences, writes } = readJob(line, this.known, { named, ofType: (type) => this.ofType.get(folded(type)) })
    this.writes.jobs.push(...writes)
    this.tell('Job', line, name, standing, ...sentences)
  }

  document(line: Line): void {
    const found = (sheet: string, row: string): { on: 'places' | 'assets'; codes: string[] } | null => {
      if (sheet === 'type') return { on: 'assets', codes: this.ofType.get(folded(row)) ?? [] }
      if (sheet === 'component') {
        const tag = this.componentTags.get(folded(row)) ?? this.assetBy.get(folded(row))?.tag
        return tag ? { on: 'assets', codes: [tag] } : null
      }
      const code = (sheet === 'space' ? this.spaces : this.floors).get(folded(row))
      return code ? { on: 'places', codes: [code] } : null
    }
    const { name, standing, sentences, writes } = readDocument(line, this.known, found)
    this.writes.documents.push(...writes)
    this.tell('Document', line, name, standing, ...sentences)
  }
}

/** The own field that holds in which systems a component is. */
const SYSTEM = 'System'
const keyNamed = <Key extends string>(names: Record<Key, string>, said: string): Key | undefined =>
  (Object.keys(names) as Key[]).find((key) => same(names[key], said) || same(key, said))

/** A choice is told by its name and a yes by its word; the rest as it is. */
function sentAs(field: OwnField, value: string): unknown {
  if (field.shape === 'choice') return field.choices.find((choice) => same(choice.name, value) || same(choice.key, value))?.key ?? value
  if (field.shape === 'flag') return /^(yes|true|1)$/i.test(value) ? 1 : /^(no|false|0)$/i.test(value) ? 0 : value
  if (field.shape === 'date') return dayIn(value) ?? value
  return value
}

const FIELD_WORDS: Partial<Record<keyof CobieAssetFields, string>> = { space: 'place', classCode: 'class', priceMinor: 'price', parent: 'part of' }
function changesSay(changed: CobieAssetFields, known: CobieAsset): string[] {
  return (Object.keys(changed) as (keyof CobieAssetFields & keyof AssetFields)[]).map((field) => {
    const word = FIELD_WORDS[field] ?? field.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`).replace(/ (minor|years)$/, '')
    return `${word}: ${said(known[field as keyof CobieAsset])} becomes ${said(changed[field])}.`
  })
}
const said = (value: unknown) => (value === null || value === undefined || value === '' ? 'nothing' : String(value))
