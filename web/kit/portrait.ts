import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { RegisterName } from '#core/registers'

/** A record of a register: what has a Portrait. */
export interface RecordRef {
  register: RegisterName
  id: number
}

export const addressOf = ({ register, id }: RecordRef): string => `/registers/${register}/${id}`

/** The Portrait that stands open beside what one is working on. */
export const usePortrait = defineStore('portrait', () => {
  const shown = shallowRef<RecordRef | null>(null)
  return {
    shown,
    open: (record: RecordRef) => void (shown.value = record),
    close: () => void (shown.value = null),
  }
})
