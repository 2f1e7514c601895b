import { readdirSync, readFileSync } from 'node:fs'
import path from 'node:path'
import { mount } from '@vue/test-utils'
import { nextTick } from 'vue'
import { settled } from '../../tests/kit/fetch'
import { choose, chosenIn } from '../../tests/kit/choose'
import ChoiceEntry from './ChoiceEntry.vue'
import DialogBox from './DialogBox.vue'
import FileEntry from './FileEntry.vue'
import { setServerNow, showTimesOf } from './format'
import ListEntry from './ListEntry.vue'
import LoadedPart from './LoadedPart.vue'
import { useLoading } from './loading'
import MomentEntry from './MomentEntry.vue'
import NumberEntry from './NumberEntry.vue'
import PickField from './PickField.vue'
import SuggestEntry from './SuggestEntry.vue'
import TextEntry from './TextEntry.vue'

afterEach(() => (document.body.innerHTML = ''))
const labelFor = (box: ReturnType<typeof mount>) => box.find('label').attributes('for')

test('no screen has a control of the browser’s own; a file is chosen by one that is out of sight', () => {
  const folder = path.join(__dirname, '..')
  const screens = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((file) => file.endsWith('.vue'))
  const own = screens.flatMap((file) => {
    const text = readFileSync(path.join(folder, file), 'utf8')
    return [...text.matchAll(/<(?:button|input|select|textarea|dialog)\b[^>]*|:is="[^"]*'(?:button|input|select|textarea)'/g)].map(([tag]) => `${file}: ${tag}`)
  })
  expect(screens.length).toBeGreaterThan(90)
  expect(own.map((one) => one.split(':')[0])).toEqual(['kit/FileEntry.vue'])
})

describe('a text', () => {
  test('is named by its label, and what the server says stands at it', async () => {
    const box = mount(TextEntry, { props: { id: 'what', label: 'What', modelValue: 'Tap', hint: 'Up to 140 letters' }, attachTo: document.body })
    expect([labelFor(box), box.find('input').attributes('id'), box.find('input').element.value]).toEqual(['what', 'what', 'Tap'])
    expect(box.find(`#${box.find('input').attributes('aria-describedby')}`).text()).toBe('Up to 140 letters')
    await box.setProps({ problem: 'Say what it is.' })
    expect(box.find('input').attributes('aria-invalid')).toBe('true')
    expect(box.find('[role="alert"]').text()).toBe('Say what it is.')
    expect(box.text()).not.toContain('Up to 140')
    await box.find('input').setValue('Tap drips')
    expect(box.emitted('update:modelValue')).toEqual([['Tap drips']])
  })

  test('without a label in sight it has one for those who do not see it; keys and more go to where one types', async () => {
    const heard = jest.fn()
    const box = mount(TextEntry, {
      props: { id: 'q', label: 'Find', labelHidden: true, kind: 'search', modelValue: '' },
      attrs: { role: 'combobox', onKeydown: heard },
    })
    const input = box.find('input')
    expect([input.attributes('aria-label'), input.attributes('type'), input.attributes('role')]).toEqual(['Find', 'search', 'combobox'])
    await input.trigger('keydown', { key: 'Enter' })
    expect(heard).toHaveBeenCalledTimes(1)
  })

  test('what others wrote is offered by its letters and never forced', async () => {
    const box = mount(SuggestEntry, { props: { id: 's', label: 'In one line', modelValue: '', offers: ['Tap drips', 'Lamp is out'] } })
    const offered = () => (box.findComponent({ name: 'AutoComplete' }).props('options') as string[]).join()
    expect(offered()).toBe('')
    await box.setProps({ modelValue: 'DRIP' })
    expect(offered()).toBe('Tap drips')
    await box.setProps({ modelValue: 'Tap drips' })
    expect(offered()).toBe('')
  })
})

describe('a day and a time', () => {
  const opened = (modelValue: string, more = {}) => {
    setServerNow('2026-11-24T10:40:00Z')
    showTimesOf({ zone: 'Europe/Dublin' })
    return mount(MomentEntry, { props: { id: 'start', label: 'Start', modelValue, ...more }, attachTo: document.body })
  }

  test('is written as the site writes it, whatever the device does', () => {
    expect(opened('2026-11-24T14:30').find('input').element.value).toBe('Tue 24 Nov 2026, 14:30')
    expect(opened('2026-11-24', { day: true }).find('input').element.value).toBe('Tue 24 Nov 2026')
    expect(opened('').find('input').element.value).toBe('')
  })

  test('what is typed is understood before it is taken', async () => {
    const box = opened('2026-11-24T14:30')
    await box.find('input').setValue('fri 9')
    expect(box.find('[role="status"]').text()).toBe('Fri 27 Nov 2026, 09:00')
    expect(box.emitted('update:modelValue')).toBeUndefined()
    await box.find('input').trigger('keydown', { key: 'Enter' })
    expect(box.emitted('update:modelValue')).toEqual([['2026-11-27T09:00']])
    await box.find('input').trigger('blur')
    expect(box.emitted('update:modelValue')).toHaveLength(1)
  })

  test('a day alone keeps the time of the field; what cannot be meant stays, with what could be', async () => {
    const box = opened('2026-11-24T14:30', { required: true })
    await box.find('input').setValue('+3d')
    await box.find('input').trigger('blur')
    expect(box.emitted('update:modelValue')).toEqual([['2026-11-27T14:30']])
    await box.setProps({ modelValue: '2026-11-27T14:30' })
    await box.find('input').setValue('soon')
    await box.find('input').trigger('blur')
    expect([box.find('input').element.value, box.find('[role="alert"]').text()]).toEqual(['soon', expect.stringContaining('tomorrow 9')])
    // The time that stood there before is never sent under a text that says something else.
    expect(box.emitted('update:modelValue')!.at(-1)).toEqual([''])
  })

  test('the calendar begins on Monday and gives the wall-clock time that was pressed', async () => {
    const box = opened('2026-11-24T14:30')
    await box.find('button').trigger('click')
    // It is fetched with the first that is opened.
    for (let tries = 0; tries < 100 && !box.findComponent({ name: 'DatePicker' }).exists(); tries++) await new Promise((resolve) => setTimeout(resolve, 20))
    const picker = box.findComponent({ name: 'DatePicker' })
    expect(picker.props('firstDayOfWeek')).toBe(0)
    picker.vm.$emit('update:value', new Date(2026, 10, 30, 7, 5).getTime())
    expect(box.emitted('update:modelValue')).toEqual([['2026-11-30T07:05']])
  })
})

describe('a choice', () => {
  const options = [
    { value: 'due', label: 'Target first' },
    { value: 'newest', label: 'Newest first' },
  ]

  test('of a few is in sight, one group with its name', async () => {
    const box = mount(ChoiceEntry, { props: { id: 'order', label: 'Order', options, modelValue: 'due' } })
    expect(box.find('[role="radiogroup"]').attributes('aria-label')).toBe('Order')
    expect(box.findAll('input[type="radio"]').map((one) => (one.element as HTMLInputElement).checked)).toEqual([true, false])
    await choose(box, 'order', 'newest')
    expect(box.emitted('update:modelValue')).toEqual([['newest']])
  })

  test('of many shows what is chosen, or our own words; the keyboard stops once, where one types', async () => {
    const box = mount(ListEntry, { props: { id: 'order', label: 'Order', options, modelValue: 'due' }, attachTo: document.body })
    expect(chosenIn(box, 'order')).toBe('Target first')
    expect(labelFor(box)).toBe('order')
    expect(box.findAll('[tabindex="0"]').map((one) => one.element.tagName)).toEqual(['INPUT'])
    await choose(box, 'Order', 'newest')
    expect(box.emitted('update:modelValue')).toEqual([['newest']])
    await box.setProps({ modelValue: '', placeholder: 'none yet' })
    expect(chosenIn(box, 'order')).toBe('none yet')
  })

  test('of a number: emptied is none, and the limits are kept', async () => {
    const box = mount(NumberEntry, { props: { id: 'n', label: 'Minutes', least: 5, most: 600, modelValue: 60 } })
    expect(labelFor(box)).toBe('n')
    await box.find('input').setValue('700')
    await box.find('input').trigger('blur')
    expect(box.emitted('update:modelValue')?.at(-1)).toEqual([600])
    await box.find('input').setValue('')
    await box.find('input').trigger('blur')
    expect(box.emitted('update:modelValue')?.at(-1)).toEqual([null])
  })

  test('of files: each choice is told, also the same file again', async () => {
    const box = mount(FileEntry, { props: { id: 'f', label: 'File' } })
    const field = box.find('input').element
    const file = new File(['a'], 'a.csv')
    Object.defineProperty(field, 'files', { value: [file] })
    await box.find('input').trigger('change')
    await box.find('input').trigger('change')
    expect(box.emitted('choose')).toEqual([[[file]], [[file]]])
    const press = jest.spyOn(field, 'click')
    await box.find('button').trigger('click')
    expect(press).toHaveBeenCalledTimes(1)
  })
})

test('a dialog says what it is, and Esc leaves it', async () => {
  const box = mount(DialogBox, {
    props: { title: 'New call' },
    slots: { default: '<h1>New call</h1><a href="#">x</a><input id="first" /><button>Go</button>' },
    attachTo: document.body,
  })
  await settled()
  const dialog = box.find('[role="dialog"]')
  expect([dialog.attributes('aria-label'), dialog.attributes('aria-modal')]).toEqual(['New call', 'true'])
  await dialog.trigger('keydown', { key: 'Escape' })
  expect(box.emitted('close')).toHaveLength(1)
})

test('a part of a page shows bones, then what was read; what fails later leaves that in sight', async () => {
  let answer: () => Promise<string> = () => Promise.resolve('Seven')
  const part = useLoading(() => answer())
  const box = mount(LoadedPart, { props: { part }, slots: { default: ({ value }: { value: unknown }) => String(value) } })
  expect(box.find('[aria-label="Loading"]').exists()).toBe(true)
  await part.load()
  await nextTick()
  expect(box.text()).toBe('Seven')
  answer = () => Promise.reject(new Error('away'))
  await part.load()
  await nextTick()
  expect(box.text()).toBe('Seven')
  const fresh = useLoading(() => answer())
  await fresh.load()
  const failed = mount(LoadedPart, { props: { part: fresh } })
  expect(failed.find('[role="alert"]').text()).toContain('This screen failed')
  answer = () => Promise.resolve('Eight')
  await failed.find('button').trigger('click')
  expect(fresh.value.value).toBe('Eight')
})

test('a search that finds nothing says what was looked for and what may help', async () => {
  const asked: string[] = []
  const find = (text: string) => Promise.resolve(asked.push(text)).then(() => [])
  const box = mount(PickField, { props: { id: 'place', label: 'Place', value: null, find } })
  const select = box.findComponent({ name: 'Select' })
  const empty = () => mount({ render: () => select.vm.$slots.empty!() }).text()
  expect(empty()).toBe('Type part of its name, number or code.')
  ;(select.props('onSearch') as (text: string) => void)(' boiler ')
  await nextTick()
  expect(empty()).toBe('Looking for “boiler” …')
  await new Promise((resolve) => setTimeout(resolve, 200))
  await settled()
  expect([asked.at(-1), empty()]).toEqual([' boiler ', 'Nothing is called “boiler”. Fewer letters, or another part of its name, may find it.'])
})
