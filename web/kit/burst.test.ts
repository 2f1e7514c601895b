import { nextTick, ref } from 'vue'
import { Burst, BURST_MS, useDraft } from '#web/kit'

beforeEach(() => {
  jest.useFakeTimers()
  sessionStorage.clear()
})
afterEach(() => jest.useRealTimers())

describe('letters outside a field', () => {
  test('one that stands alone acts, once', () => {
    const act = jest.fn()
    new Burst().press(1_000, act)
    expect(act).not.toHaveBeenCalled()
    jest.advanceTimersByTime(BURST_MS)
    expect(act).toHaveBeenCalledTimes(1)
  })

  test('a burst does nothing, and the next that stands alone acts again', () => {
    const [act, later] = [jest.fn(), jest.fn()]
    const keys = new Burst()
    for (let n = 0; n < 6; n++) {
      keys.press(1_000 + n * 90, act)
      jest.advanceTimersByTime(90)
    }
    jest.advanceTimersByTime(2_000)
    expect(act).not.toHaveBeenCalled()
    keys.press(5_000, later)
    jest.advanceTimersByTime(BURST_MS)
    expect(later).toHaveBeenCalledTimes(1)
  })
})

describe('a draft', () => {
  test('is there again, goes with what it is about, and is gone once it was sent', async () => {
    const id = ref(1)
    const text = useDraft(() => `comment-${id.value}`)
    text.value = 'half a sent'
    await nextTick()
    expect(useDraft(() => 'comment-1').value).toBe('half a sent')
    id.value = 2
    await nextTick()
    expect(text.value).toBe('')
    id.value = 1
    await nextTick()
    text.value = ''
    await nextTick()
    expect(useDraft(() => 'comment-1').value).toBe('')
    expect(sessionStorage).toHaveLength(0)
  })
})
