import { mount } from '@vue/test-utils'
import { defineComponent, h, ref } from 'vue'
import { useSteady } from './steady'

/** What comes in late above what is pressed. */
let resized: () => void
beforeAll(() => {
  window.ResizeObserver = class {
    constructor(told: () => void) {
      resized = told
    }
    observe() {}
    unobserve() {}
    disconnect() {}
  } as never
})

function shown() {
  const wrapper = mount(
    defineComponent(() => {
      const box = ref<HTMLElement | null>(null)
      useSteady(box)
      return () => h('div', { class: 'scroller', style: 'overflow-y: auto' }, [h('div', { ref: box, class: 'box' }), h('button', 'Today')])
    }),
    { attachTo: document.body },
  )
  const box = wrapper.get<HTMLElement>('.box').element
  const scroller = wrapper.get('.scroller').element
  jest.spyOn(scroller, 'getBoundingClientRect').mockReturnValue({ left: 0, right: 600 } as DOMRect)
  const grow = (height: number) => {
    jest.spyOn(box, 'offsetHeight', 'get').mockReturnValue(height)
    jest.spyOn(box, 'getBoundingClientRect').mockReturnValue({ top: 100, bottom: 100 + height } as DOMRect)
    resized()
  }
  return { wrapper, box, scroller, grow }
}
const pointAt = (clientY: number) => document.dispatchEvent(Object.assign(new Event('pointermove'), { clientX: 300, clientY }))

test('what is under the pointer stays there when something comes in above it, and when that goes again', () => {
  const { wrapper, box, scroller, grow } = shown()
  grow(0)
  pointAt(400)
  grow(48)
  expect(scroller.scrollTop).toBe(48)
  grow(70)
  expect([scroller.scrollTop, box.style.minHeight]).toEqual([70, '70px'])
  // The room it once had it keeps.
  grow(20)
  expect([scroller.scrollTop, box.style.minHeight]).toEqual([70, '70px'])
  wrapper.unmount()
})

test('who reads above it, or is elsewhere, is not scrolled; who is below it by key is', () => {
  const { wrapper, scroller, grow } = shown()
  // What is there at once moves nothing.
  grow(30)
  pointAt(50)
  grow(60)
  expect(scroller.scrollTop).toBe(0)
  wrapper.get('button').element.focus()
  grow(90)
  expect(scroller.scrollTop).toBe(30)
  wrapper.unmount()
})
