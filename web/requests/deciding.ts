import { inject, provide } from 'vue'
import type { InjectionKey } from 'vue'
import type { RequestSheet, TriageFields } from '#contract/requests'
import { DeskFromPlan } from '#web/floorplans'
import { assetChoices, placeChoices, useVocabulary } from '#web/kit'
import type { SheetField } from '#web/sheets'

export type RequestFieldName = 'summary' | 'description' | 'placeId' | 'assetId' | 'categoryId' | 'payerId' | 'outsideReference'

/** What each field of a request is called where two values of it are compared. */
export const REQUEST_FIELD_NAMES: Record<RequestFieldName, string> & Record<'consequence' | 'urgency', string> = {
  summary: 'Summary',
  description: 'Description',
  placeId: 'Place',
  assetId: 'Asset',
  categoryId: 'Category',
  consequence: 'Who is affected',
  urgency: 'How soon',
  payerId: 'Payer',
  outsideReference: 'Reference in another system',
}

/** The fields of a request; `decide` keeps one of those that are decided, and goes on to what is missing. */
export function useRequestFields(
  decide: (fields: TriageFields) => unknown,
  pickAsset: (id: number | null) => unknown,
): Record<RequestFieldName, SheetField<RequestSheet>> {
  const words = useVocabulary()
  void words.ensure()
  const id = (value: number | string | null) => value as number | null
  return {
    summary: { name: 'summary', kind: 'line', label: 'Summary', hint: () => 'The subject of every mail about this.', wide: true },
    description: { name: 'description', kind: 'text', label: 'Description', wide: true },
    placeId: {
      name: 'placeId',
      kind: 'pick',
      label: 'Place',
      value: ({ place }) => place?.id ?? null,
      current: ({ place }) => place && { value: place.id, label: `${place.code} ${place.name}` },
      find: (_, text) => placeChoices(text),
      beside: { component: DeskFromPlan, of: 'place', near: ({ place }) => place?.id ?? null },
      pick: (value) => decide({ placeId: id(value) }),
    },
    assetId: {
      name: 'assetId',
      kind: 'pick',
      label: 'Asset',
      value: ({ asset }) => asset?.id ?? null,
      current: ({ asset }) => asset && { value: asset.id, label: `${asset.tag} ${asset.name}` },
      find: ({ place }, text) => assetChoices(text, place?.id ?? null),
      beside: { component: DeskFromPlan, of: 'asset', near: ({ place }) => place?.id ?? null },
      pick: (value) => pickAsset(id(value)),
      clearable: true,
    },
    categoryId: {
      name: 'categoryId',
      kind: 'pick',
      label: 'What it is about',
      choices: () => words.choices((all) => all.categories),
      pick: (value) => decide({ categoryId: id(value) }),
    },
    payerId: {
      name: 'payerId',
      kind: 'pick',
      label: 'Who pays',
      choices: () => words.choices((all) => all.payers),
      pick: (value) => decide({ payerId: id(value) }),
    },
    outsideReference: { name: 'outsideReference', kind: 'line', label: 'Reference in another system', max: 80, mono: true },
  }
}

/** What the sections of a request share beside its Sheet: its fields, and how what is decided is kept. */
interface Deciding {
  fields: Record<RequestFieldName, SheetField<RequestSheet>>
  decide: (fields: TriageFields) => Promise<void>
  joinTo: (id: number) => Promise<void>
}
const DECIDING: InjectionKey<Deciding> = Symbol('deciding a request')
export const provideDeciding = (deciding: Deciding): void => provide(DECIDING, deciding)
export const useDeciding = (): Deciding => inject(DECIDING)!
