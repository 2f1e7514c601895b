import { nextTick } from 'vue'
import { keepKeyboardWhereItWas } from './stayingFocus'

/** A browser takes the keyboard from what is disabled; this one does not, so that the test does it. */
const rest = (button: HTMLButtonElement) => {
  button.blur()
  button.disabled = true
}
const buttons = (many: number) => {
  document.body.innerHTML = '<button>press</button>'.repeat(many)
  return [...document.querySelectorAll('button')]
}
const press = (button: HTMLButtonElement) => {
  button.focus()
  button.click()
}
beforeAll(() => keepKeyboardWhereItWas())

test('what was pressed has the keyboard again once it can be pressed again', async () => {
  const [button] = buttons(1)
  press(button!)
  rest(button!)
  await nextTick()
  expect(document.activeElement).toBe(document.body)
  button!.disabled = false
  await nextTick()
  expect(document.activeElement).toBe(button)
  // Once: what rests later for another reason does not call it back.
  rest(button!)
  await nextTick()
  button!.disabled = false
  await nextTick()
  expect(document.activeElement).toBe(document.body)
})

test('whoever went on meanwhile stays there; what was pressed last counts; what is gone calls nobody', async () => {
  const [one, two] = buttons(2)
  press(one!)
  rest(one!)
  await nextTick()
  two!.focus()
  one!.disabled = false
  await nextTick()
  expect(document.activeElement).toBe(two)

  press(one!)
  rest(one!)
  press(two!)
  rest(two!)
  await nextTick()
  one!.disabled = false
  await nextTick()
  expect(document.activeElement).toBe(document.body)
  two!.remove()
  two!.disabled = false
  await nextTick()
  expect(document.activeElement).toBe(document.body)
})
