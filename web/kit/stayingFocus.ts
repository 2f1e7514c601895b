/**
 * What was pressed by key and cannot be pressed while it works keeps the keyboard: a browser takes it away from what is
 * disabled, and whoever works without a mouse would begin again at the top of the page.
 */
export function keepKeyboardWhereItWas(): void {
  let watched: MutationObserver | null = null
  const look = ({ target }: MouseEvent) => {
    const pressed = target instanceof Element ? target.closest('button') : null
    if (!pressed || document.activeElement !== pressed) return
    watched?.disconnect()
    let rested = false
    const observer = new MutationObserver(() => {
      if (pressed.disabled) return void (rested = true)
      if (!rested) return
      observer.disconnect()
      // Who has gone on meanwhile stays where they are.
      if (document.activeElement === document.body) pressed.focus({ preventScroll: true })
    })
    observer.observe(pressed, { attributes: true, attributeFilter: ['disabled'] })
    watched = observer
  }
  document.addEventListener('click', look, { capture: true })
}
