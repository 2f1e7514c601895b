/** Brings a field into view and gives it the keyboard: reasons and index lines lead here. */
export function jumpTo(field: string): void {
  const target =
    document.getElementById(`f-${field}`) ?? document.getElementById(`s-${field}`) ?? document.querySelector<HTMLElement>(`[data-field="${field}"]`)
  target?.scrollIntoView({ block: 'center' })
  const inner = target?.matches('input, textarea, select, button') ? target : target?.querySelector<HTMLElement>('input, textarea, select, button, a')
  ;(inner ?? target)?.focus({ preventScroll: true })
}
