import { mount } from '@vue/test-utils'
import { settled } from '../../tests/kit/fetch'
import KeptText from './KeptText.vue'
import NumberField from './NumberField.vue'

const field = (keep: (value: number) => Promise<boolean>) =>
  mount(NumberField, { props: { value: 30, name: 'Response minutes', least: 1, keep }, attachTo: document.body })
afterEach(() => (document.body.innerHTML = ''))

async function typed(box: ReturnType<typeof field>, text: string): Promise<HTMLInputElement> {
  const input = box.find('input')
  await input.setValue(text)
  return input.element
}

test('a number is kept once, by Enter or by leaving, and is named for those who do not see it', async () => {
  const keep = jest.fn((_: number) => new Promise<boolean>((done) => setTimeout(() => done(true), 5)))
  const box = field(keep)
  expect(box.find('input').attributes('aria-label')).toBe('Response minutes')
  await typed(box, '45')
  await box.find('input').trigger('keydown', { key: 'Enter' })
  await box.find('input').trigger('blur')
  await settled()
  expect(keep.mock.calls).toEqual([[45]])
})

test('what was refused, emptied or not changed shows what stands', async () => {
  const keep = jest.fn(() => Promise.resolve(false))
  const box = field(keep)
  await typed(box, '45')
  await box.find('input').trigger('blur')
  await settled()
  expect(box.find('input').element.value).toBe('30')
  const input = await typed(box, '')
  await box.find('input').trigger('blur')
  await settled()
  expect([input.value, keep.mock.calls.length]).toEqual(['30', 1])
  await typed(box, '30')
  await box.find('input').trigger('blur')
  expect(keep.mock.calls.length).toBe(1)
})

test('a short text is kept trimmed, once; blanks alone show what stands', async () => {
  const keep = jest.fn((_: string) => new Promise<boolean>((done) => setTimeout(() => done(true), 5)))
  const box = mount(KeptText, { props: { value: 'W', name: 'What numbers begin with', most: 6, keep }, attachTo: document.body })
  await box.find('input').setValue(' JOB ')
  await box.find('input').trigger('keydown', { key: 'Enter' })
  await box.find('input').trigger('blur')
  await settled()
  expect(keep.mock.calls).toEqual([['JOB']])
  await box.find('input').setValue('  ')
  await box.find('input').trigger('blur')
  await settled()
  expect([box.find('input').element.value, keep.mock.calls.length]).toEqual(['W', 1])
})
