import { mount } from '@vue/test-utils'
import DictateButton from './DictateButton.vue'
import type { Recognition } from './dictation'

const all = globalThis as unknown as Record<string, unknown>
let heard: Recognition[] = []
function browserHears(): void {
  heard = []
  all.SpeechRecognition = class {
    onresult = null
    onerror = null
    onend: (() => void) | null = null
    processLocally = false
    start = () => void heard.push(this as unknown as Recognition)
    stop = () => this.onend?.()
  }
}
afterEach(() => delete all.SpeechRecognition)
const say = (text: string, isFinal = true) => heard[0]!.onresult!({ resultIndex: 0, results: [{ isFinal, 0: { transcript: text } }] })
const button = (modelValue = 'Seal worn.') => {
  const wrapper = mount(DictateButton, {
    props: { modelValue, what: 'the note', max: 40, 'onUpdate:modelValue': (now: string) => void wrapper.setProps({ modelValue: now }) },
  })
  return wrapper
}

test('where the browser cannot hear, nothing is offered', () => {
  expect(button().find('button').exists()).toBe(false)
})

test('what is said goes behind what was typed, on the device itself, until it is stopped or there is no more room', async () => {
  browserHears()
  const wrapper = button()
  await wrapper.find('button').trigger('click')
  expect([wrapper.find('button').text(), heard[0]!.processLocally]).toEqual(['Stop listening', true])
  say('half a', false)
  expect(wrapper.props('modelValue')).toBe('Seal worn.')
  say(' needs a new one ')
  await wrapper.vm.$nextTick()
  expect(wrapper.props('modelValue')).toBe('Seal worn. needs a new one')
  say('and another one after that')
  expect(wrapper.emitted('update:modelValue')!.at(-1)![0]).toHaveLength(40)
  await wrapper.find('button').trigger('click')
  expect(wrapper.find('button').text()).toBe('Dictate the note')
})

test('a microphone that may not be used is said, and silence is not', async () => {
  browserHears()
  const wrapper = button('')
  await wrapper.find('button').trigger('click')
  heard[0]!.onerror!({ error: 'no-speech' })
  await wrapper.vm.$nextTick()
  expect(wrapper.find('[role="alert"]').exists()).toBe(false)
  heard[0]!.onerror!({ error: 'not-allowed' })
  await wrapper.vm.$nextTick()
  expect(wrapper.find('[role="alert"]').text()).toContain('Type it instead.')
})
