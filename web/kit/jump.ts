/** Brings a field into view and gives it the keyboard: reasons and index lines lead here. A fact turns into its field. */
export function jumpTo(field: string): void {
  const target =
    document.getElementById(`f-${field}`) ?? document.getElementById(`s-${field}`) ?? document.querySelector<HTMLElement>(`[data-field~="${field}"]`)
  const fact = target?.closest<HTMLElement>('.fact:not(.opened)')
  ;(fact ?? target)?.scrollIntoView({ block: 'center' })
  if (fact) return fact.querySelector<HTMLElement>('.fact-value')?.click()
  const inner = target?.matches('input, textarea, button')
    ? target
    : (target?.querySelector<HTMLElement>('table [tabindex="0"]') ?? target?.querySelector<HTMLElement>('input, textarea, button, a'))
  ;(inner ?? target)?.focus({ preventScroll: true })
}
