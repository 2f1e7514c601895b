import { mount } from '@vue/test-utils'
import type { GaugeTarget } from '#contract/kit'
import { ORDER_STATES } from '#core/orders'
import { PRIORITIES } from '#core/requests'
import { setServerNow } from './format'
import PaneSplitter from './PaneSplitter.vue'
import PriorityBar from './PriorityBar.vue'
import ProblemNote from './ProblemNote.vue'
import { useWidth } from './splitter'
import StageRing from './StageRing.vue'
import TargetGauge from './TargetGauge.vue'
import TideBar from './TideBar.vue'

const target = (more: Partial<GaugeTarget> = {}): GaugeTarget => ({
  clock: 'working',
  startAt: '2026-11-23T08:00:00Z',
  responseDueAt: '2026-11-23T10:00:00Z',
  closeAt: '2026-11-23T16:00:00Z',
  completionDueAt: '2026-11-23T18:00:00Z',
  stoppedAt: null,
  finishedAt: null,
  ...more,
})
const gaugeAt = (now: string, more: Partial<GaugeTarget> = {}) => {
  jest.useFakeTimers({ now: new Date(now) })
  setServerNow(now)
  const gauge = mount(TargetGauge, { props: { target: target(more), wide: true } })
  jest.useRealTimers()
  return gauge
}

describe('the target gauge', () => {
  test('fills by the share of time used, with a notch at the response target', () => {
    const gauge = gaugeAt('2026-11-23T13:00:00Z')
    expect(gauge.find('.fill').attributes('style')).toBe('width: 50%;')
    expect(gauge.find('.notch').attributes('style')).toBe('left: 20%;')
    expect(gauge.attributes('aria-label')).toBe('5 h to target')
    expect(gauge.find('.hatch').exists()).toBe(false)
  })

  test('says when it is close, and past the end grows a hatch with the time over beside it', () => {
    expect(gaugeAt('2026-11-23T16:30:00Z').attributes('aria-label')).toBe('1 h 30 min to target, close')
    const past = gaugeAt('2026-11-23T21:00:00Z')
    expect(past.attributes('aria-label')).toBe('3 h past target')
    expect(past.find('.over').text()).toBe('+3 h')
    expect(past.find('.hatch').attributes('style')).toMatch(/^width: 30(\.0+\d*)?%;$/)
  })

  test('stands still on hold and after the finish, whatever the hour is', () => {
    const held = gaugeAt('2026-11-25T12:00:00Z', { stoppedAt: '2026-11-23T13:00:00Z' })
    expect(held.attributes('aria-label')).toBe('Clock stopped with 5 h left')
    expect(held.find('.trough').classes()).toContain('still')
    expect(gaugeAt('2026-11-25T12:00:00Z', { finishedAt: '2026-11-23T17:00:00Z' }).attributes('aria-label')).toBe('Finished on time')
    expect(gaugeAt('2026-11-25T12:00:00Z', { finishedAt: '2026-11-23T18:40:00Z' }).attributes('aria-label')).toBe('Finished 40 min past target')
  })
})

describe('the stage ring', () => {
  test.each(ORDER_STATES)('%s stands by its name, with seven arcs', (state) => {
    const ring = mount(StageRing, { props: { state } })
    expect(ring.findAll('path').length - Number(state === 'on_hold')).toBe(7)
    expect(ring.text().length).toBeGreaterThan(3)
  })

  test('fills up to the stage; a dot is somebody on it, a bar is on hold from where it was', () => {
    const arcs = (state: (typeof ORDER_STATES)[number], heldFrom?: (typeof ORDER_STATES)[number]) =>
      mount(StageRing, { props: { state, heldFrom } }).findAll('path.on').length
    expect(arcs('draft')).toBeLessThan(arcs('ready'))
    expect(arcs('ready')).toBeLessThan(arcs('on_job'))
    expect(arcs('on_job')).toBeLessThan(arcs('closed'))
    expect(arcs('on_hold', 'on_job')).toBe(arcs('on_job'))
    expect(
      mount(StageRing, { props: { state: 'on_job' } })
        .find('circle')
        .exists(),
    ).toBe(true)
    expect(
      mount(StageRing, { props: { state: 'on_hold', heldFrom: 'ready' } })
        .find('.bar')
        .exists(),
    ).toBe(true)
  })
})

test('a priority is a word, each with a weight of its own', () => {
  const shown = PRIORITIES.map((priority) => mount(PriorityBar, { props: { priority } }))
  expect(shown.map((one) => one.text())).toEqual(['Emergency', 'Urgent', 'Routine', 'Deferred'])
  expect(new Set(shown.map((one) => one.classes().join(' '))).size).toBe(4)
  expect(mount(PriorityBar, { props: { priority: null } }).text()).toBe('No priority yet')
})

test('a tide bar has one length for each standing that is there', () => {
  const bar = mount(TideBar, { props: { station: { station: 'field', count: 9, onTime: 6, close: 0, past: 3 } } })
  expect(bar.findAll('.tide > span').map((one) => [one.classes()[0], one.attributes('style')])).toEqual([
    ['on', 'flex-grow: 6;'],
    ['past', 'flex-grow: 3;'],
  ])
})

describe('the edge of a pane', () => {
  const edge = (toward: 'left' | 'right') =>
    mount(PaneSplitter, { props: { label: 'Width', width: 360, least: 280, most: 560, toward }, attachTo: document.body })

  test('moves by the arrow keys, in the direction the arrow points', async () => {
    const right = edge('right')
    await right.trigger('keydown', { key: 'ArrowRight' })
    await right.trigger('keydown', { key: 'ArrowLeft' })
    await right.trigger('keydown', { key: 'Enter' })
    expect(right.emitted('resize')).toEqual([[376], [344]])
    const left = edge('left')
    await left.trigger('keydown', { key: 'ArrowLeft' })
    expect(left.emitted('resize')).toEqual([[376]])
    expect(left.attributes()).toMatchObject({ role: 'separator', 'aria-valuenow': '360', 'aria-valuemin': '280', 'aria-valuemax': '560' })
  })

  test('follows the pointer while it is held, and no longer', async () => {
    const right = edge('right')
    right.element.setPointerCapture = () => undefined
    const point = (kind: string, clientX: number) => right.element.dispatchEvent(new MouseEvent(kind, { clientX, bubbles: true }))
    point('pointerdown', 100)
    point('pointermove', 140)
    point('pointerup', 140)
    point('pointermove', 300)
    expect(right.emitted('resize')).toEqual([[400]])
  })

  test('a width stays within its ends and is remembered on this device', async () => {
    localStorage.clear()
    const { width, set } = useWidth('queue', 360, 280, 560)
    set(900)
    expect(width.value).toBe(560)
    set(10)
    expect(width.value).toBe(280)
    await Promise.resolve()
    expect(useWidth('queue', 360, 280, 560).width.value).toBe(280)
    localStorage.setItem('evrix-width-queue', '5000')
    expect(useWidth('queue', 360, 280, 560).width.value).toBe(560)
  })
})

describe('a failure on a screen', () => {
  const note = (status: number) => mount(ProblemNote, { props: { problem: { type: 'about:blank', title: 'Our fault', status, detail: 'It is kept.' } } })

  test('says what happened and offers another try', async () => {
    const wrapper = note(500)
    expect(wrapper.text()).toContain('It is kept.')
    await wrapper.find('button').trigger('click')
    expect(wrapper.emitted('retry')).toHaveLength(1)
  })

  test('does not offer a try that cannot help', () => {
    expect(note(403).text()).toContain('Not yours to see')
    expect(note(403).find('button').exists()).toBe(false)
    expect(note(404).find('button').exists()).toBe(false)
  })
})
