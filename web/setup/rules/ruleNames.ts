import { computed } from 'vue'
import type { ComputedRef } from 'vue'
import type { RuleBookSheet } from '#contract/setup'
import type { RuleNames } from '#core/orders'
import { useVocabulary } from '#web/kit'

/** Places picked while editing, so that an unsaved rule reads as a sentence too. */
const picked = new Map<number, string>()
export const rememberPlace = (id: number, label: string) => picked.set(id, label)

/** What the ids in the rules on the screen are called. */
export function useRuleNames(sheet: () => RuleBookSheet): ComputedRef<RuleNames> {
  const words = useVocabulary()
  void words.ensure()
  return computed(() => {
    const of = (list: { id: number; name: string }[], id: number) => list.find((one) => one.id === id)?.name
    const all = words.lists
    return {
      place: (id) => of(sheet().names.places, id) ?? picked.get(id) ?? 'a place',
      payer: (id) => {
        const payer = all?.payers.find((one) => one.id === id)
        return payer ? `${payer.code} ${payer.name}` : (of(sheet().names.payers, id) ?? 'a payer')
      },
      account: (id) => all?.accounts.find((one) => one.id === id)?.name ?? of(sheet().names.accounts, id) ?? 'somebody',
      own: (id) => sheet().own.find((field) => field.id === id) ?? null,
    }
  })
}
