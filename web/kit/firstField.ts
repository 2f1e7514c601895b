import { nextTick, onMounted } from 'vue'
import type { Directive, Ref } from 'vue'

const begin = (form: HTMLElement | null) =>
  form?.querySelector<HTMLElement>('input:not([disabled]), textarea:not([disabled]), button:not([disabled])')?.focus({ preventScroll: true })

/** A form that was opened by a press has the keyboard: what was pressed may be gone, and one would be left with nothing. */
export function useFirstField(form: Readonly<Ref<HTMLElement | null>>): void {
  onMounted(async () => {
    await nextTick()
    begin(form.value)
  })
}

const stoodIn = new WeakMap<HTMLElement, HTMLElement | null>()

/**
 * The same for a form that stands within a component, in the place of the button that opened it: once it is left, that
 * button, marked `data-opens` with the same word, has the keyboard again. Whoever has gone on meanwhile stays where they are.
 *
 * @example <form v-if="open" v-begins="'price'"> and <NButton v-else data-opens="price">
 */
export const vBegins: Directive<HTMLElement, string> = {
  mounted(form) {
    stoodIn.set(form, form.parentElement)
    void nextTick(() => begin(form))
  },
  beforeUnmount(form, { value }) {
    if (!form.contains(document.activeElement)) return
    requestAnimationFrame(() => {
      if (document.activeElement !== document.body) return
      stoodIn.get(form)?.querySelector<HTMLElement>(`[data-opens="${value}"]`)?.focus({ preventScroll: true })
    })
  },
}
