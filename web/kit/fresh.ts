import { computed, inject, provide, shallowRef } from 'vue'
import type { ComputedRef, InjectionKey, ShallowRef } from 'vue'

/** Who changed which field since it was last looked at. */
type Fresh = ShallowRef<Map<string, string>>
const FRESH: InjectionKey<Fresh> = Symbol('fresh')

/** A Sheet keeps which of its fields somebody else has changed while it was open. */
export function provideFresh(): { mark: (fields: string[], who: string) => void } {
  const fresh: Fresh = shallowRef(new Map())
  provide(FRESH, fresh)
  return {
    mark(fields, who) {
      if (fields.length) fresh.value = new Map([...fresh.value, ...fields.map((field) => [field, who] as const)])
    },
  }
}

/** A field shows who changed it, until it is looked at: its keyboard focus, or a press. */
export function useFresh(field: () => string): { by: ComputedRef<string | null>; seen: () => void } {
  const fresh = inject(FRESH, null)
  const by = computed(() => fresh?.value.get(field()) ?? null)
  function seen(): void {
    if (!fresh?.value.has(field())) return
    const left = new Map(fresh.value)
    left.delete(field())
    fresh.value = left
  }
  return { by, seen }
}
