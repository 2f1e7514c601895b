import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { listOwnFields } from '#contract/own'
import type { OwnFieldRow } from '#contract/own'
import { isOwnKind, ownListField } from '#core/lists'
import type { ListField, ListKind } from '#core/lists'
import type { OwnKind } from '#core/own'
import { call } from '#web/kit'

/** The fields administrators have added, read once and kept up by who changes them. */
export const useOwnFields = defineStore('own', () => {
  const rows = shallowRef<OwnFieldRow[]>([])
  /** Whether it is known what there is: a list that asks by one waits for it. */
  const known = ref(false)
  let asked: Promise<void> | null = null
  const take = (now: { rows: OwnFieldRow[] }): void => {
    rows.value = now.rows
    known.value = true
  }
  function ensure(): Promise<void> {
    asked ??= call(listOwnFields, {}).then(take, () => {
      // Without them everything else is there; they are asked for again with the next page.
      asked = null
      known.value = true
    })
    return asked
  }
  const of = (kind: OwnKind): OwnFieldRow[] => rows.value.filter((row) => row.kind === kind && !row.retired)
  const listFields = (kind: ListKind): ListField[] => (isOwnKind(kind) ? of(kind).map(ownListField) : [])
  return { rows, known, take, ensure, of, listFields }
})
