import { reactive, ref, toRaw, toValue, watch } from 'vue'
import type { Reactive, Ref } from 'vue'

const PREFIX = 'evrix-draft-'

/**
 * Words that are being typed, kept on this device until they have been sent: leaving with Esc, going to another
 * page or reading the page anew loses none of them.
 *
 * @param key says what they are about; a ref of it may change, and then others are shown
 * @param otherwise what stands there when nothing was written; it may change too
 * @example const text = useDraft(() => `comment-${props.requestId}`) … text.value = '' // sent
 */
export function useDraft(key: () => string, otherwise: string | (() => string) = ''): Ref<string> {
  const place = () => `${PREFIX}${key()}`
  const read = () => sessionStorage.getItem(place()) ?? toValue(otherwise)
  const text = ref(read())
  watch([place, () => toValue(otherwise)], () => (text.value = read()))
  watch(text, (now) => {
    if (now === toValue(otherwise) || now === '') sessionStorage.removeItem(place())
    else sessionStorage.setItem(place(), now)
  })
  return text
}

export interface FormDraft<Form extends object> {
  form: Reactive<Form>
  /** Whether what was written earlier, and not sent, is shown. */
  kept: Ref<boolean>
  /** It was sent, or is given up: the form starts as it would without a draft. */
  drop: () => void
}

/**
 * A form of several fields, kept on this device until it was sent or given up, as `useDraft` keeps a text. What was
 * written over an older state of the thing is another draft: name its version in the key.
 *
 * @param start what the form says when nothing was written; fields that are no longer in it are not taken up again
 * @example const { form, drop } = useFormDraft(`notice-${id}-${version}`, { title: '' }) … drop() // sent
 */
export function useFormDraft<Form extends object>(key: string, start: Form): FormDraft<Form> {
  const place = `${PREFIX}${key}`
  const untouched = JSON.stringify(start)
  const earlier = readForm(place, start)
  const form = reactive<Form>({ ...(JSON.parse(untouched) as Form), ...earlier })
  const kept = ref(earlier !== null)
  watch(
    form,
    () => {
      const now = JSON.stringify(toRaw(form))
      if (now === untouched) sessionStorage.removeItem(place)
      else sessionStorage.setItem(place, now)
    },
    { flush: 'sync' },
  )
  const drop = () => {
    Object.assign(form, JSON.parse(untouched))
    sessionStorage.removeItem(place)
    kept.value = false
  }
  return { form, kept, drop }
}

function readForm<Form extends object>(place: string, start: Form): Partial<Form> | null {
  try {
    const read = JSON.parse(sessionStorage.getItem(place) ?? 'null') as Record<string, unknown> | null
    if (typeof read !== 'object' || !read) return null
    return Object.fromEntries(Object.entries(read).filter(([name]) => name in start)) as Partial<Form>
  } catch {
    // What cannot be read is no draft.
    return null
  }
}

/** What was being written of all these was sent, or makes no sense any more. */
export function dropDrafts(about: string): void {
  for (const key of Object.keys(sessionStorage)) if (key.startsWith(`${PREFIX}${about}`)) sessionStorage.removeItem(key)
}

/** Whether something was typed in this field of the page and not kept. */
export const typedBefore = (field: string): boolean => sessionStorage.getItem(`${PREFIX}${fieldDraft(field)}`) !== null
/** What a field of a page keeps its words under. */
export const fieldDraft = (field: string): string => `field-${location.pathname}-${field}`
