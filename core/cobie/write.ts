import { CONDITION_NAMES, OWNER_NAMES, UNIFORMAT } from '#core/assets'
import { currencyDecimals } from '#core/kit'
import { frequencyOf } from '#core/preventive'
import type { CobieAsset, CobieBuilding } from './records'
import { ATTRIBUTE_FIELDS, COBIE_SHEET_NAMES, cobieColumns, NOTHING } from './sheets'
import type { AttributeField, CobieSheet, CobieTables } from './sheets'

/** What is the same for all components of a type. */
const TYPE_FIELDS = ['classCode', 'maker', 'model', 'priceMinor', 'lifeYears', 'warrantyCovers', 'warrantyTerms', 'vendor'] as const

/** Days of a warranty, its first and its last among them; null where either is not known. */
export function warrantyDays({ warrantyFrom, warrantyUntil }: Pick<CobieAsset, 'warrantyFrom' | 'warrantyUntil'>): number | null {
  if (!warrantyFrom || !warrantyUntil) return null
  return Math.round((Date.parse(`${warrantyUntil}T00:00:00Z`) - Date.parse(`${warrantyFrom}T00:00:00Z`)) / 86_400_000) + 1
}

/** A building as the sheets of a COBie workbook. @param now UTC, as "2026-11-26T10:30:00" */
export function writeCobie(it: CobieBuilding, by: { email: string }, now: string): Record<CobieSheet, string[][]> {
  const common = { CreatedBy: by.email, CreatedOn: now, ExtSystem: 'Evrix', ExternalSystem: 'Evrix' }
  const tables: CobieTables = {}
  const put = (sheet: CobieSheet, rows: Record<string, string | number | null | undefined>[]) => {
    const columns = cobieColumns(sheet)
    tables[sheet] = [
      columns,
      ...rows.map((row) =>
        columns.map((column) => {
          const value = { ...common, ...row }[column]
          return value === null || value === undefined || value === '' ? NOTHING : String(value)
        }),
      ),
    ]
  }
  const decimals = currencyDecimals(it.site.currency)
  const price = (minor: number | null) => (minor === null ? null : (minor / 10 ** decimals).toFixed(decimals))
  const types = typesOf(it.assets)
  put('Contact', [
    { Email: by.email, Category: 'Author' },
    ...it.vendors.map(({ name, email, phone }) => ({ Email: email, Category: 'Vendor', Company: name, Phone: phone })),
  ])
  put('Facility', [
    {
      Name: it.building.code,
      Description: it.building.name,
      Category: 'Building',
      ProjectName: it.site.name,
      SiteName: it.site.name,
      LinearUnits: 'metres',
      AreaUnits: 'square metres',
      VolumeUnits: 'cubic metres',
      CurrencyUnit: it.site.currency,
      AreaMeasurement: 'Inside the walls',
      Phase: 'Operation',
    },
  ])
  // Spaces that stand in the building itself need a floor: it is called as the building is.
  const straight = it.spaces.some(({ floor }) => floor === it.building.code)
  put('Floor', [
    ...(straight ? [{ Name: it.building.code, Description: it.building.name, Category: 'Site' }] : []),
    ...it.floors.map(({ code, name }) => ({ Name: code, Description: name, Category: 'Floor' })),
  ])
  put(
    'Space',
    it.spaces.map(({ code, name, floor, area }) => ({
      Name: code,
      Description: name,
      Category: 'Space',
      FloorName: floor,
      RoomTag: code,
      NetArea: area === null ? null : area.toFixed(2),
    })),
  )
  put(
    'Zone',
    it.payers
      .map(({ code, name }) => ({ code, name, spaces: it.spaces.filter(({ payer }) => payer === code) }))
      .filter(({ spaces }) => spaces.length)
      .map(({ code, name, spaces }) => ({ Name: code, Category: 'Payer', SpaceNames: spaces.map((space) => space.code).join(','), Description: name })),
  )
  put(
    'Type',
    types.map(({ name, of }) => {
      const vendor = it.vendors.find((one) => one.name === of.vendor)?.email
      const days = warrantyDays(of)
      const covers = (what: 'parts' | 'labour') => days !== null && (of.warrantyCovers === what || of.warrantyCovers === 'both')
      return {
        Name: name,
        Category: of.classCode ? `${of.classCode}: ${UNIFORMAT[of.classCode] ?? ''}` : null,
        Description: name,
        AssetType: 'Fixed',
        Manufacturer: of.maker,
        ModelNumber: of.model,
        WarrantyGuarantorParts: vendor,
        WarrantyDurationParts: covers('parts') ? days : null,
        WarrantyGuarantorLabor: vendor,
        WarrantyDurationLabor: covers('labour') ? days : null,
        WarrantyDurationUnit: days === null || of.warrantyCovers === null ? null : 'day',
        ReplacementCost: price(of.priceMinor),
        ExpectedLife: of.lifeYears,
        DurationUnit: of.lifeYears === null ? null : 'year',
        WarrantyDescription: of.warrantyTerms,
      }
    }),
  )
  const typeOf = new Map(types.flatMap(({ name, all }) => all.map(({ tag }) => [tag, name] as const)))
  put(
    'Component',
    it.assets.map((asset) => ({
      Name: asset.tag,
      TypeName: typeOf.get(asset.tag),
      Space: asset.space,
      Description: asset.name,
      SerialNumber: asset.serial,
      InstallationDate: asset.installedOn,
      WarrantyStartDate: asset.warrantyFrom,
      TagNumber: asset.tag,
      BarCode: asset.tag,
      AssetIdentifier: asset.tag,
    })),
  )
  const parts = new Map<string, string[]>()
  for (const { tag, parent } of it.assets) if (parent) parts.set(parent, [...(parts.get(parent) ?? []), tag])
  put(
    'System',
    it.assets
      .filter(({ tag }) => parts.has(tag))
      .map(({ tag, name, classCode }) => ({ Name: tag, Category: classCode, ComponentNames: [tag, ...parts.get(tag)!].join(','), Description: name })),
  )
  put(
    'Spare',
    it.parts.map(({ code, name, unit }) => ({ Name: code, Category: unit, Description: name, PartNumber: code })),
  )
  put(
    'Resource',
    it.equipment.map(({ code, name }) => ({ Name: code, Category: 'Tool', Description: name })),
  )
  put(
    'Job',
    it.jobs.map(({ name, tag, rule, startsOn }) => ({
      Name: name,
      Category: 'Preventive',
      Status: 'Started',
      TypeName: typeOf.get(tag),
      Description: `${name}, ${tag}`,
      Start: startsOn,
      TaskStartUnit: 'day',
      Frequency: frequencyOf(rule)?.every,
      FrequencyUnit: frequencyOf(rule)?.unit,
      TaskNumber: tag,
    })),
  )
  put(
    'Document',
    it.documents.map(({ title, kind, file, on, code }) => ({
      Name: title,
      Category: kind,
      ApprovalBy: 'Information only',
      Stage: 'Operation',
      SheetName: on === 'assets' ? 'Component' : sheetOf(it, code),
      RowName: code,
      File: file,
    })),
  )
  put('Attribute', [
    ...it.assets.flatMap((asset) =>
      (Object.entries(attributesOf(asset)) as [AttributeField, string][]).map(([field, value]) => ({
        Name: ATTRIBUTE_FIELDS[field],
        Category: 'Requirement',
        SheetName: 'Component',
        RowName: asset.tag,
        Value: value,
      })),
    ),
    ...it.own.map(({ kind, code, field, says }) => ({
      Name: field.label,
      Category: 'Own field',
      SheetName: kind === 'assets' ? 'Component' : sheetOf(it, code),
      RowName: code,
      Value: says,
      Unit: field.unit,
    })),
  ])
  return Object.fromEntries(COBIE_SHEET_NAMES.map((sheet) => [sheet, tables[sheet]!])) as Record<CobieSheet, string[][]>
}

const sheetOf = (it: CobieBuilding, code: string): CobieSheet =>
  code === it.building.code ? 'Facility' : it.floors.some((floor) => floor.code === code) ? 'Floor' : 'Space'

/** What has no column of its own; what the columns tell already is not said twice. */
function attributesOf(asset: CobieAsset): Partial<Record<AttributeField, string>> {
  const { condition, owner, parent, note, criticality, warrantyUntil, warrantyCovers } = asset
  return {
    ...(condition ? { condition: CONDITION_NAMES[condition] } : {}),
    ...(criticality ? { criticality } : {}),
    ...(owner !== 'us' ? { owner: OWNER_NAMES[owner] } : {}),
    ...(parent ? { parent } : {}),
    ...(note ? { note } : {}),
    // A duration is said of parts or of labour; an end without either is told by itself.
    ...(warrantyUntil && (warrantyDays(asset) === null || warrantyCovers === null) ? { warrantyUntil } : {}),
  }
}

/** Components that share all a type tells of, each type under a name of its own. */
function typesOf(assets: CobieAsset[]): { name: string; of: CobieAsset; all: CobieAsset[] }[] {
  const groups = new Map<string, CobieAsset[]>()
  for (const asset of assets) {
    const key = JSON.stringify([...TYPE_FIELDS.map((field) => asset[field]), warrantyDays(asset)])
    const group = groups.get(key)
    if (group) group.push(asset)
    else groups.set(key, [asset])
  }
  const taken = new Map<string, number>()
  return [...groups.values()].map((all) => {
    const [of] = all as [CobieAsset]
    const plain = [of.classCode, of.maker, of.model].filter(Boolean).join(' ') || 'Not said'
    const times = (taken.get(plain.toLowerCase()) ?? 0) + 1
    taken.set(plain.toLowerCase(), times)
    return { name: times > 1 ? `${plain} (${times})` : plain, of, all }
  })
}
