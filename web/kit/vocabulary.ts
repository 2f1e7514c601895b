import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { findPeople, readVocabulary } from '#contract/people'
import type { Vocabulary } from '#contract/people'
import { findAssets, findPlaces } from '#contract/places'
import { call } from './call'
import type { Choice } from '../kit/PickField.vue'

/** The small lists that forms offer from, read once. */
export const useVocabulary = defineStore('vocabulary', () => {
  const lists = shallowRef<Vocabulary | null>(null)
  let asked: Promise<void> | null = null
  function ensure(): Promise<void> {
    asked ??= call(readVocabulary, {}).then((found) => void (lists.value = found))
    return asked
  }
  /** What was changed in Setup is offered at once. */
  function reload(): Promise<void> {
    asked = null
    return ensure()
  }
  const choices = (pick: (all: Vocabulary) => { id: number; name: string; code?: string; retired?: boolean }[]): Choice[] =>
    lists.value
      ? pick(lists.value).map((one) => ({
          value: one.id,
          label: [one.code, one.name, one.retired ? '(retired)' : ''].filter(Boolean).join(' '),
          disabled: !!one.retired,
        }))
      : []
  return { lists, ensure, reload, choices }
})

const MOST_PLACES = 12
/** Places by what is typed; of one kind alone where that is said. */
export async function placeChoices(q: string, kind?: string): Promise<Choice[]> {
  const { rows } = await call(findPlaces, { q, limit: kind ? 60 : MOST_PLACES })
  const fitting = rows.filter((one) => !kind || one.kind === kind).slice(0, MOST_PLACES)
  return fitting.map((one) => ({
    value: one.id,
    label: `${one.code} ${one.name}${one.within ? `, ${one.within}` : ''}`,
  }))
}

export const personChoices = async (q: string): Promise<Choice[]> =>
  (await call(findPeople, { q, limit: 12 })).rows.map((one) => ({ value: one.id, label: one.name }))

/** Assets by what is typed; with nothing typed, those at the place. */
export async function assetChoices(q: string, placeId: number | null): Promise<Choice[]> {
  const rows = (await call(findAssets, { q, placeId: q ? undefined : (placeId ?? undefined), limit: 12 })).rows
  return rows.map((one) => ({ value: one.id, label: `${one.tag} ${one.name}` }))
}
