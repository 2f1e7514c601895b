import type { Register } from '#core/lists'
import { useVocabulary } from '#web/kit'
import type { Choice } from '#web/kit'
import { finderOf } from '#web/portraits'

/** How what a filter names is found: typed for on the server, or from a short list. */
export function finderFor(register: Register): { find?: (text: string) => Promise<Choice[]>; choices?: () => Choice[] } {
  const words = useVocabulary()
  const listed = (more: Choice[], read: Parameters<typeof words.choices>[0]) => ({ choices: () => [...more, ...words.choices(read)] })
  switch (register) {
    case 'category':
      return listed([], (all) => all.categories)
    case 'trade':
      return listed([], (all) => all.trades)
    case 'ownState':
      return listed([], (all) => all.ownStates)
    case 'technician':
      return listed([], (all) => all.technicians)
    case 'site':
      return listed([], (all) => all.sites)
    case 'team':
      return listed([{ value: 'mine', label: 'My team' }], (all) => all.teams)
    case 'account':
      return listed([{ value: 'me', label: 'Me' }], (all) => all.accounts)
    default:
      return finderOf(register)
  }
}
