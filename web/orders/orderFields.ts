import { inject, provide } from 'vue'
import type { InjectionKey } from 'vue'
import type { OrderFields, OrderSheet } from '#contract/orders'
import { ORDER_KIND_NAMES, ORDER_KINDS } from '#core/orders'
import type { OrderState } from '#core/orders'
import { DeskFromPlan } from '#web/floorplans'
import { assetChoices, placeChoices, useVocabulary } from '#web/kit'
import { ORDER_FIELD_NAMES } from '#web/sheets'
import type { SheetField } from '#web/sheets'

type Plain = Exclude<keyof OrderFields, 'shares' | 'categoryId' | 'consequence' | 'urgency' | 'hazardSeverity' | 'hazardLikelihood'>
type Shape = Omit<SheetField<OrderSheet>, 'name' | 'label'> & { label?: string }

/** The fields of an order: how each is read and asked for. What an asset says of others is asked by `pickAsset`. */
export function useOrderFields(pickAsset: (id: number | null) => unknown): Record<Plain, SheetField<OrderSheet>> {
  const words = useVocabulary()
  void words.ensure()
  const shapes: Record<Plain, Shape> = {
    summary: { kind: 'line', wide: true },
    description: { kind: 'text', wide: true },
    placeId: {
      kind: 'pick',
      value: ({ place }) => place?.id ?? null,
      current: ({ place }) => place && { value: place.id, label: `${place.code} ${place.name}` },
      leads: ({ place }) => place && { register: 'places', id: place.id },
      find: (_, text) => placeChoices(text),
      beside: { component: DeskFromPlan, of: 'place', near: ({ place }) => place?.id ?? null },
    },
    assetId: {
      kind: 'pick',
      value: ({ asset }) => asset?.id ?? null,
      current: ({ asset }) => asset && { value: asset.id, label: `${asset.tag} ${asset.name}` },
      leads: ({ asset }) => asset && { register: 'assets', id: asset.id },
      find: ({ place }, text) => assetChoices(text, place?.id ?? null),
      beside: { component: DeskFromPlan, of: 'asset', near: ({ place }) => place?.id ?? null },
      pick: (id) => pickAsset(id as number | null),
      clearable: true,
    },
    kind: { kind: 'pick', choices: () => ORDER_KINDS.map((one) => ({ value: one, label: ORDER_KIND_NAMES[one] })) },
    tradeId: { kind: 'pick', choices: () => words.choices((all) => all.trades) },
    teamId: { kind: 'pick', choices: () => words.choices((all) => all.teams), leads: ({ teamId }) => (teamId ? { register: 'teams', id: teamId } : null) },
    leadId: { kind: 'pick', label: 'Who leads it', choices: () => words.choices((all) => all.accounts) },
    supervisorId: {
      kind: 'pick',
      label: 'Who supervises it',
      choices: () => words.choices((all) => all.accounts.filter((one) => one.roles.includes('approver'))),
      says: ({ supervisorId }) => words.lists?.accounts.find((one) => one.id === supervisorId)?.name ?? null,
    },
    vendorId: {
      kind: 'pick',
      label: 'Vendor, if one is sent for',
      choices: () => words.choices((all) => all.vendors),
      leads: ({ vendorId }) => (vendorId ? { register: 'vendors', id: vendorId } : null),
      clearable: true,
    },
    estimateMinor: { kind: 'money' },
    contactName: { kind: 'line', label: 'Contact on site', max: 120 },
    contactPhone: { kind: 'line', max: 40, mono: true },
    access: { kind: 'line', max: 2000, wide: true, hint: ({ place }) => place?.access ?? undefined },
    outsideReference: { kind: 'line', max: 80, label: 'Reference in another system', mono: true },
    noteForWorker: { kind: 'line', max: 2000, wide: true, label: 'Note for whoever does it' },
    noteForPayer: { kind: 'line', max: 2000, wide: true, label: 'Note for the payer, on the statement' },
    symptom: { kind: 'line', max: 80 },
    cause: { kind: 'line', max: 80 },
    fix: { kind: 'line', max: 80 },
  }
  return Object.fromEntries(
    Object.entries(shapes).map(([name, shape]) => [name, { ...shape, name, label: shape.label ?? ORDER_FIELD_NAMES[name as Plain] }]),
  ) as Record<Plain, SheetField<OrderSheet>>
}
export type OrderFieldTable = ReturnType<typeof useOrderFields>

/** What is asked in the first section of a draft, and so is no fact further down. */
const PLANNED: readonly (keyof OrderFields)[] = ['kind', 'tradeId', 'teamId', 'leadId', 'supervisorId', 'vendorId', 'estimateMinor', 'shares']
export const isAskedNow = (state: OrderState, field: keyof OrderFields): boolean => state === 'draft' && PLANNED.includes(field)

const FIELDS: InjectionKey<OrderFieldTable> = Symbol('fields of the order')
export const provideOrderFields = (fields: OrderFieldTable): void => provide(FIELDS, fields)
export const useFieldsHere = (): OrderFieldTable => inject(FIELDS)!
