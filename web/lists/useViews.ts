import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { listViews } from '#contract/lists'
import type { ViewRow, Views } from '#contract/lists'
import { isRegister } from '#core/lists'
import type { ListKind } from '#core/lists'
import { call } from '#web/kit'

/** The views somebody can open, read once and kept up by what they change. */
export const useViews = defineStore('views', () => {
  const views = shallowRef<Views | null>(null)
  async function load(): Promise<Views> {
    views.value = await call(listViews, {})
    return views.value
  }
  const take = (now: Views) => (views.value = now)
  return { views, load, take }
})

/** Where a list stands: a register in its place, lists of work under their own. */
export const baseOf = (kind: ListKind): string => (isRegister(kind) ? `/registers/${kind}` : `/lists/${kind}`)

/** Where a view is opened; the address says everything the list shows, and which view it came from. */
export const addressOf = (view: Pick<ViewRow, 'kind' | 'address' | 'key'>): string =>
  `${baseOf(view.kind)}?${[view.address, `view=${view.key}`].filter(Boolean).join('&')}`
