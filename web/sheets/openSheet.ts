import { inject, provide } from 'vue'
import type { Component, ComputedRef, InjectionKey, Ref } from 'vue'
import type { Permission } from '#core/people'
import type { Choice, RecordRef } from '#web/kit'

/** A field of a Sheet: how it is read, and how it is asked for. */
export interface SheetField<Sheet> {
  name: string
  label: string
  kind: 'line' | 'text' | 'pick' | 'money' | 'day' | 'percent' | 'count' | 'number'
  max?: number
  wide?: boolean
  mono?: boolean
  clearable?: boolean
  hint?: (sheet: Sheet) => string | undefined
  /** What it holds, where that is not the property of its name. */
  value?: (sheet: Sheet) => string | number | null
  /** What is read, where that is not the value or the words of the choice. */
  says?: (sheet: Sheet) => string | null
  choices?: () => Choice[]
  find?: (sheet: Sheet, text: string) => Promise<Choice[]>
  current?: (sheet: Sheet) => Choice | null
  /** What stands behind a number. */
  unit?: string
  /** Where what it names has a page of its own. */
  leads?: (sheet: Sheet) => RecordRef | null
  /** An address of the web that it holds. */
  href?: (sheet: Sheet) => string | null
  /** Another way to choose it, shown beside its field: told what is near, and tells what was picked. */
  beside?: { component: Component; near: (sheet: Sheet) => number | null; of: 'place' | 'asset' }
  /** Keeps what was chosen, where that is more than its value. */
  pick?: (value: number | string | null) => unknown
}

/** What a field of a Sheet holds. */
export function valueOf<Sheet extends object>(field: SheetField<Sheet>, sheet: Sheet): string | number | null {
  return field.value ? field.value(sheet) : ((sheet as Record<string, unknown>)[field.name] as string | number | null)
}

/** The Sheet that is open, for the sections that rooms bring to it. */
export interface OpenSheet<Sheet, Fields = Record<string, unknown>> {
  sheet: ComputedRef<Sheet>
  /** Why a field cannot be written now by who looks at it; undefined when it can. */
  whyNot: (field: string) => string | undefined
  save: (fields: Fields) => Promise<boolean>
  saveFrom: (field: string, yours: unknown, base: unknown) => Promise<boolean>
  sentenceAt: (field: string) => string | undefined
  reload: () => Promise<void>
  /** The section whose act was pressed: it shows the form of it. */
  begun: Ref<string | null>
}

const OPEN: InjectionKey<unknown> = Symbol('open sheet')
export const provideSheet = <Sheet, Fields>(open: OpenSheet<Sheet, Fields>): void => provide(OPEN, open)
export function useOpenSheet<Sheet, Fields = Record<string, unknown>>(): OpenSheet<Sheet, Fields> {
  return inject(OPEN) as OpenSheet<Sheet, Fields>
}

/**
 * A section that a room brings to a Sheet. Where `opensAt` names the state, it stands first, open for input, as what
 * is decided now (its component is told by `now`); elsewhere it stands in its place, and on one line while it is empty.
 */
export interface SheetSection<Sheet extends { state: string }> {
  anchor: string
  title: string
  opensAt?: readonly Sheet['state'][]
  shown?: (sheet: Sheet) => boolean
  /** What is said in its stead while there is nothing in it. */
  empty?: (sheet: Sheet) => string | null
  /** Fields a reason may name that are found in it. */
  field?: string
  /** What is begun in it from the head of the Sheet, by this key, when it is possible. */
  act?: { label: string; key: string; may: Permission; at: readonly Sheet['state'][]; onwardAt: readonly Sheet['state'][] }
  component: Component
}
