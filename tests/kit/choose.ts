import type { VueWrapper } from '@vue/test-utils'
import { nextTick } from 'vue'

/** Chooses in the select or the group of buttons with this id, or with this name for those who do not see it. */
export async function choose(within: VueWrapper, idOrName: string, value: string | number | boolean | null): Promise<void> {
  const isIt = (one: VueWrapper) => {
    const given = one.props() as { inputProps?: Record<string, string>; name?: string }
    return [given.inputProps?.id, given.inputProps?.['aria-label'], given.name, one.attributes('aria-label')].includes(idOrName)
  }
  const all = [...within.findAllComponents({ name: 'Select' }), ...within.findAllComponents({ name: 'RadioGroup' })] as VueWrapper[]
  const field = all.find(isIt)
  if (!field) throw new Error(`There is nothing to choose from called ${idOrName}.`)
  field.vm.$emit('update:value', value)
  await nextTick()
}

/** The words of what is chosen there. */
export const chosenIn = (within: VueWrapper, id: string): string =>
  within
    .findAllComponents({ name: 'Select' })
    .find((one) => (one.props('inputProps') as { id?: string } | undefined)?.id === id)!
    .text()
