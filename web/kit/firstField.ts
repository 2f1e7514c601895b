import { nextTick, onMounted } from 'vue'
import type { Ref } from 'vue'

/** A form that was opened by a press has the keyboard: what was pressed may be gone, and one would be left with nothing. */
export function useFirstField(form: Readonly<Ref<HTMLElement | null>>): void {
  onMounted(async () => {
    await nextTick()
    form.value?.querySelector<HTMLElement>('input:not([disabled]), textarea:not([disabled]), button:not([disabled])')?.focus({ preventScroll: true })
  })
}
