import { defineComponent, h } from 'vue'
import type { ListKind } from '#core/lists'
import { useOpenSheet } from '#web/sheets'
import type { SheetSection } from '#web/sheets'
import DocumentsSection from './DocumentsSection.vue'

/** The section of documents on a Sheet or a Portrait. */
export const documentsSection = <Sheet extends { id: number; state: string }>(kindOf: (sheet: Sheet) => ListKind): SheetSection<Sheet> => ({
  anchor: 'documents',
  title: 'Documents',
  component: defineComponent(() => {
    const { sheet } = useOpenSheet<Sheet>()
    return () => h(DocumentsSection, { key: sheet.value.id, on: kindOf(sheet.value), id: sheet.value.id })
  }),
})
