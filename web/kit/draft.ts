import { ref, watch } from 'vue'
import type { Ref } from 'vue'

/**
 * Words that are being typed, kept on this device until they have been sent: leaving with Esc, going to another
 * page or reading the page anew loses none of them.
 *
 * @param key says what they are about; a ref of it may change, and then others are shown
 * @example const text = useDraft(() => `comment-${props.requestId}`) … text.value = '' // sent
 */
export function useDraft(key: () => string, otherwise = ''): Ref<string> {
  const place = () => `evrix-draft-${key()}`
  const read = () => sessionStorage.getItem(place()) ?? otherwise
  const text = ref(read())
  watch(place, () => (text.value = read()))
  watch(text, (now) => {
    if (now === otherwise || now === '') sessionStorage.removeItem(place())
    else sessionStorage.setItem(place(), now)
  })
  return text
}

/** What was being written of all these was sent, or makes no sense any more. */
export function dropDrafts(about: string): void {
  for (const key of Object.keys(sessionStorage)) if (key.startsWith(`evrix-draft-${about}`)) sessionStorage.removeItem(key)
}
