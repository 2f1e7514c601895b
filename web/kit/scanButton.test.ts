import { flushPromises, mount } from '@vue/test-utils'
import { readCodes } from './scanner'
import ScanButton from './ScanButton.vue'

jest.mock('./scanner', () => ({ readCodes: jest.fn() }))
const reading = readCodes as jest.MockedFunction<typeof readCodes>
const stopped = jest.fn()
let found: (text: string) => void = () => undefined

function camera(is: 'there' | Error): void {
  stopped.mockReset()
  Object.defineProperty(navigator, 'mediaDevices', { value: {}, configurable: true })
  reading.mockImplementation((_video, hears) => {
    found = hears
    return is === 'there' ? Promise.resolve(stopped) : Promise.reject(is)
  })
}
const named = (name: string) => Object.assign(new Error('no'), { name })
const pressed = async () => {
  const wrapper = mount(ScanButton, { props: { what: 'its tag' } })
  await wrapper.find('button').trigger('click')
  await flushPromises()
  return wrapper
}

test('the camera is on until a code is read, and off then', async () => {
  camera('there')
  const wrapper = await pressed()
  expect([wrapper.find('button').text(), wrapper.find('video').exists()]).toEqual(['Stop scanning', true])
  found('EQ-3')
  await flushPromises()
  expect(wrapper.emitted('code')).toEqual([['EQ-3']])
  expect(wrapper.find('video').exists()).toBe(false)
  expect(stopped).toHaveBeenCalledTimes(1)
})

test('it is off as well when it is stopped, or the page is left, also while it still wakes up', async () => {
  camera('there')
  const wrapper = await pressed()
  await wrapper.find('button').trigger('click')
  expect(stopped).toHaveBeenCalledTimes(1)
  const left = await pressed()
  left.unmount()
  expect(stopped).toHaveBeenCalledTimes(2)
  let awake: (stop: () => void) => void = () => undefined
  reading.mockImplementation(() => new Promise((resolve) => (awake = resolve)))
  const waking = await pressed()
  await waking.find('button').trigger('click')
  awake(stopped)
  await flushPromises()
  expect(stopped).toHaveBeenCalledTimes(3)
})

test.each([
  [named('NotAllowedError'), 'may not use the camera'],
  [named('NotFoundError'), 'There is no camera here.'],
  [named('AbortError'), 'cannot be used now'],
])('without a camera it says why, and to type the code instead', async (error, words) => {
  camera(error)
  const wrapper = await pressed()
  expect(wrapper.find('[role="alert"]').text()).toContain(words)
  expect(wrapper.find('[role="alert"]').text()).toContain('Type the code instead.')
  expect(wrapper.find('video').exists()).toBe(false)
})

test('a page that did not come over a secure line has none', async () => {
  camera('there')
  Object.defineProperty(navigator, 'mediaDevices', { value: undefined, configurable: true })
  const wrapper = await pressed()
  expect(wrapper.find('[role="alert"]').text()).toContain('There is no camera here.')
})
