/** In a select the keyboard goes straight to where one types: the frame around it is no stop of its own. */
export function typeFirst(root: HTMLElement | null): void {
  root?.querySelector('.n-base-selection-label')?.setAttribute('tabindex', '-1')
  root?.querySelector('.n-base-selection input')?.setAttribute('tabindex', '0')
}
