import { ASSET_FIELDS } from '#core/assets'
import { PAYER_FIELDS } from '#core/ledger'
import { METHOD_FIELDS } from '#core/methods'
import { PLACE_FIELDS } from '#core/places'
import { PERSON_FIELDS, REGISTERS, TEAM_FIELDS } from '#core/registers'
import type { AnyFieldTable, RegisterField, RegisterName } from '#core/registers'
import { EQUIPMENT_FIELDS, PART_FIELDS, STORE_FIELDS } from '#core/stock'
import { VENDOR_FIELDS } from '#core/vendors'
import type { ListField } from './shapes'

/** Every register with what is kept of its records. */
export const REGISTER_TABLES = {
  places: PLACE_FIELDS,
  assets: ASSET_FIELDS,
  people: PERSON_FIELDS,
  teams: TEAM_FIELDS,
  vendors: VENDOR_FIELDS,
  payers: PAYER_FIELDS,
  parts: PART_FIELDS,
  stores: STORE_FIELDS,
  equipment: EQUIPMENT_FIELDS,
  methods: METHOD_FIELDS,
} satisfies Record<RegisterName, AnyFieldTable>

const WORDS: ListField = { name: 'words', label: 'Words', shape: 'words' }
const RETIRED: ListField = { name: 'retired', label: 'Retired', shape: 'flag', shows: true }
const SITE: ListField = { name: 'site', label: 'Site', shape: 'named', register: 'site', groups: true, shows: true }
const shown = (name: string, label: string, shape: ListField['shape']): ListField => ({ name, label, shape, shows: true, unasked: true })

/** What a list shows beside the fields of the record itself: counted or looked up elsewhere. */
const BESIDE: Record<RegisterName, ListField[]> = {
  places: [SITE, shown('above', 'Stands in', 'text')],
  assets: [SITE, { name: 'open', label: 'Open work', shape: 'flag', shows: true }],
  people: [SITE, { name: 'technician', label: 'Technician', shape: 'flag', shows: true }],
  teams: [SITE, shown('members', 'Technicians', 'count')],
  vendors: [{ name: 'open', label: 'Open work', shape: 'flag', shows: true }],
  payers: [],
  parts: [shown('stock', 'In stock', 'text'), shown('cost', 'Average cost', 'money')],
  stores: [SITE, shown('kinds', 'Kinds of parts', 'count')],
  equipment: [SITE, { name: 'lent', label: 'Lent', shape: 'flag', shows: true }],
  methods: [shown('steps', 'Steps', 'count'), shown('used', 'Orders', 'count')],
}

/** The property of a record as an address names it: `placeId` is its place, `priceMinor` its price. */
const addressName = (property: string) => property.replace(/(?<=.)(Id|Minor|Bp|Code)$/, '')

/** How a list asks for a field of a record and shows it. */
function listFieldOf(property: string, field: RegisterField): ListField {
  const { label, may, needed } = field
  const name = addressName(property)
  const common = { name, label, shows: true, ...(property === name ? {} : { property }), ...(needed ? {} : { empties: true }), ...(may ? { may } : {}) }
  switch (field.kind) {
    case 'choice':
      return { ...common, shape: 'choice', choices: field.choices, groups: true }
    case 'named':
      return { ...common, shape: 'named', register: field.of, groups: true }
    case 'text':
      return { ...common, shape: 'text' }
    case 'line':
    case 'mail':
      return { ...common, shape: 'text', sorts: true }
    case 'day':
      return { ...common, shape: 'date', sorts: true }
    default:
      return { ...common, shape: field.kind, sorts: true }
  }
}

const listFieldsOf = (register: RegisterName): ListField[] => [
  WORDS,
  ...Object.entries(REGISTER_TABLES[register] as AnyFieldTable).map(([property, field]) => listFieldOf(property, field)),
  ...BESIDE[register],
  RETIRED,
]

export const REGISTER_LIST_FIELDS = Object.fromEntries(REGISTERS.map((register) => [register, listFieldsOf(register)])) as Record<RegisterName, ListField[]>

/** What a register shows when nobody chose; it runs by the first of them. */
export const REGISTER_COLUMNS: Record<RegisterName, readonly string[]> = {
  places: ['code', 'name', 'kind', 'above'],
  assets: ['tag', 'name', 'class', 'place', 'condition', 'warrantyUntil', 'open'],
  people: ['name', 'title', 'email', 'phone', 'place', 'technician'],
  teams: ['name', 'members'],
  vendors: ['name', 'service', 'email', 'phone', 'contractUntil', 'insuranceUntil', 'markup', 'open'],
  payers: ['code', 'name', 'kind', 'tax', 'budget', 'endsOn'],
  parts: ['code', 'name', 'stock', 'unit', 'cost'],
  stores: ['name', 'place', 'kinds'],
  equipment: ['tag', 'name', 'lent'],
  methods: ['code', 'name', 'kind', 'class', 'category', 'steps', 'used'],
}
