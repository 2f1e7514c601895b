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

const stood = new WeakMap<HTMLElement, { within: HTMLElement | null; after: Element | null }>()

/**
 * The same for a form that stands within a component, in the place of its button: once it is left, the keyboard is on
 * what stands there instead: the button with the words given where there are several. Whoever has gone on meanwhile
 * stays where they are.
 */
export const vBegins: Directive<HTMLElement, string | undefined> = {
  mounted(form) {
    stood.set(form, { within: form.parentElement, after: form.previousElementSibling })
    void nextTick(() => begin(form))
  },
  beforeUnmount(form, { value: words = '' }) {
    if (!form.contains(document.activeElement)) return
    const { within, after } = stood.get(form)!
    requestAnimationFrame(() => {
      if (document.activeElement !== document.body) return
      const instead = after ? after.nextElementSibling : within?.firstElementChild
      const buttons = [instead, within].flatMap((one) => (one?.matches('button') ? [one as HTMLElement] : [...(one?.querySelectorAll('button') ?? [])]))
      buttons.find(({ textContent }) => textContent.includes(words))?.focus({ preventScroll: true })
    })
  },
}
