import { defineComponent, h } from 'vue'
import type { ListKind } from '#core/lists'
import { isOwnKind } from '#core/lists'
import { useOpenSheet } from '#web/sheets'
import type { SheetSection } from '#web/sheets'
import OwnFacts from './OwnFacts.vue'
import { useOwnFields } from './store'

/** The section of own fields on a Sheet or a Portrait, where any were added to what it is of. */
export const ownSection = <Sheet extends { id: number; state: string }>(kindOf: (sheet: Sheet) => ListKind): SheetSection<Sheet> => ({
  anchor: 'own',
  title: 'More facts',
  shown: (sheet) => {
    const kind = kindOf(sheet)
    const own = useOwnFields()
    void own.ensure()
    return isOwnKind(kind) && own.of(kind).length > 0
  },
  component: defineComponent(() => {
    const { sheet } = useOpenSheet<Sheet>()
    return () => {
      const kind = kindOf(sheet.value)
      return isOwnKind(kind) ? h(OwnFacts, { key: sheet.value.id, kind, id: sheet.value.id }) : null
    }
  }),
})
