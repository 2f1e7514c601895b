import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { defineComponent, h, nextTick } from 'vue'
import { offerActs, useActs } from './acts'
import { CallProblem } from './call'
import { isTyping, useKeys } from './keys'
import { onLiveChange, useLive } from './live'
import { useLoading } from './loading'
import { useSoon } from './soon'
import { useUndo } from './undo'

beforeEach(() => setActivePinia(createPinia()))

/** A component that only runs this set-up. */
const running = (setup: () => void) => mount(defineComponent({ setup: () => (setup(), () => h('p')) }))

describe('reading for a screen', () => {
  test('a newer read wins over one still on its way', async () => {
    const ends: ((value: string) => void)[] = []
    const loading = useLoading(() => new Promise<string>((resolve) => ends.push(resolve)))
    const [first, second] = [loading.load(), loading.load()]
    ends[1]!('new')
    ends[0]!('old')
    await Promise.all([first, second])
    expect(loading.value.value).toBe('new')
    expect(loading.busy.value).toBe(false)
  })

  test('a failure keeps what was there and says why', async () => {
    let fails = false
    const loading = useLoading(() => (fails ? Promise.reject(new CallProblem({ type: '', title: 'No', status: 500, detail: 'Down' })) : Promise.resolve(1)))
    await loading.load()
    fails = true
    await loading.load()
    expect(loading.value.value).toBe(1)
    expect(loading.problem.value?.detail).toBe('Down')
    const broken = useLoading(() => Promise.reject(new TypeError('bug')))
    await broken.load()
    expect(broken.problem.value?.title).toBe('This screen failed')
  })
})

describe('undo', () => {
  test('takes back the last act once, and says so', async () => {
    const undo = useUndo()
    const back = jest.fn(() => Promise.resolve())
    undo.say('W-1 is dispatched.', back)
    expect(undo.said).toMatchObject({ sentence: 'W-1 is dispatched.', undoable: true, wrong: false })
    await undo.undoLast()
    await undo.undoLast()
    expect(back).toHaveBeenCalledTimes(1)
    expect(undo.said?.sentence).toBe('Taken back.')
  })

  test('says why when somebody else acted meanwhile', async () => {
    const undo = useUndo()
    undo.say('Held.', () => Promise.reject(new CallProblem({ type: '', title: '', status: 409, detail: 'Somebody else changed this.' })))
    await undo.undoLast()
    expect(undo.said).toMatchObject({ sentence: 'Somebody else changed this.', wrong: true })
  })

  test('a sentence goes away by itself', () => {
    jest.useFakeTimers()
    const undo = useUndo()
    undo.say('Saved.')
    jest.advanceTimersByTime(12_001)
    expect(undo.said).toBeNull()
    jest.useRealTimers()
  })
})

test('acts are offered while their screen is there, and no longer', () => {
  const screen = running(() => offerActs(() => [{ label: 'Submit', key: 's', run: () => undefined }]))
  expect(
    useActs()
      .all()
      .map((act) => act.label),
  ).toEqual(['Submit'])
  screen.unmount()
  expect(useActs().all()).toEqual([])
})

describe('keys', () => {
  const pressed: string[] = []
  const press = (key: string, target: EventTarget = document.body, more: KeyboardEventInit = {}) => {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more })
    target.dispatchEvent(event)
    return event
  }
  let screen: ReturnType<typeof running>
  beforeEach(() => {
    pressed.length = 0
    screen = running(() => useKeys((key) => (pressed.push(key), key === 'n')))
  })
  afterEach(() => {
    screen.unmount()
    document.body.innerHTML = ''
  })

  test('work anywhere but where one types or in a dialog', () => {
    document.body.innerHTML = '<input id="a"><textarea id="b"></textarea><select id="c"></select><p id="d"></p>'
    for (const id of ['a', 'b', 'c']) press('s', document.getElementById(id)!)
    expect(pressed).toEqual([])
    press('s', document.getElementById('d')!)
    expect(pressed).toEqual(['s'])
    document.body.innerHTML = '<div role="dialog"><p id="e"></p></div>'
    press('s')
    expect(pressed).toEqual(['s'])
    expect(isTyping(new KeyboardEvent('keydown'))).toBe(false)
  })

  test('leave the browser its own chords, and stop only what was used', () => {
    press('s', document.body, { altKey: true })
    press('s', document.body, { metaKey: true })
    press('s', document.body, { ctrlKey: true })
    expect(pressed).toEqual([])
    press('k', document.body, { ctrlKey: true })
    expect(pressed).toEqual(['k'])
    expect(press('n').defaultPrevented).toBe(true)
    expect(press('m').defaultPrevented).toBe(false)
  })

  test('are silent when the screen is gone', () => {
    screen.unmount()
    press('n')
    expect(pressed).toEqual([])
  })
})

test('a burst of changes is read once, and nothing is read after the screen is gone', () => {
  jest.useFakeTimers()
  const work = jest.fn()
  let soon!: () => void
  const screen = running(() => (soon = useSoon(work, 40)))
  for (let n = 0; n < 5; n++) soon()
  jest.advanceTimersByTime(50)
  expect(work).toHaveBeenCalledTimes(1)
  soon()
  screen.unmount()
  jest.advanceTimersByTime(50)
  expect(work).toHaveBeenCalledTimes(1)
  jest.useRealTimers()
})

describe('the live line', () => {
  class Source {
    static opened: Source[] = []
    static readonly CLOSED = 2
    readyState = 1
    onopen?: () => void
    onmessage?: (message: { data: string }) => void
    onerror?: () => void
    private readonly others = new Map<string, () => void>()
    constructor(readonly url: string) {
      Source.opened.push(this)
    }
    addEventListener(name: string, listener: () => void) {
      this.others.set(name, listener)
    }
    emit(name: string) {
      this.others.get(name)?.()
    }
    close() {
      this.readyState = 2
    }
  }
  beforeEach(() => {
    Source.opened = []
    globalThis.EventSource = Source as unknown as typeof EventSource
    jest.useFakeTimers()
  })
  afterEach(() => jest.useRealTimers())

  test('is one for the whole screen; a closed one is opened again after the last change seen', async () => {
    const heard: unknown[] = []
    const screens = [running(() => onLiveChange((change) => heard.push(change?.seq ?? 'all'))), running(() => onLiveChange(() => undefined))]
    expect(Source.opened).toHaveLength(1)
    const first = Source.opened[0]!
    first.onopen!()
    await nextTick()
    expect(useLive().connected).toBe(true)
    first.onmessage!({ data: '{"seq":41}' })
    first.onerror!()
    expect(useLive().connected).toBe(false)
    expect(Source.opened).toHaveLength(1)
    first.readyState = 2
    first.onerror!()
    jest.advanceTimersByTime(3_100)
    expect(Source.opened.map((one) => one.url)).toEqual(['/api/live', '/api/live?after=41'])
    Source.opened[1]!.emit('reset')
    expect(heard).toEqual([41, 'all'])
    screens.forEach((screen) => screen.unmount())
    expect(useLive().listeners.size).toBe(0)
  })
})
