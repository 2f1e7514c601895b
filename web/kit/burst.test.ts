import { Burst, BURST_MS } from '#web/kit'

beforeEach(() => {
  jest.useFakeTimers()
  sessionStorage.clear()
})
afterEach(() => jest.useRealTimers())

describe('letters outside a field', () => {
  test('one that stands alone acts, once; what opens a field acts at once', () => {
    const [act, opens] = [jest.fn(), jest.fn()]
    const keys = new Burst()
    keys.press(1_000, act, true)
    expect(act).not.toHaveBeenCalled()
    jest.advanceTimersByTime(BURST_MS)
    expect(act).toHaveBeenCalledTimes(1)
    keys.press(9_000, opens, false)
    expect(opens).toHaveBeenCalledTimes(1)
  })

  test('a burst changes nothing, and the next that stands alone acts again', () => {
    const [act, later] = [jest.fn(), jest.fn()]
    const keys = new Burst()
    for (let n = 0; n < 6; n++) {
      keys.press(1_000 + n * 90, act, true)
      jest.advanceTimersByTime(90)
    }
    jest.advanceTimersByTime(2_000)
    expect(act).not.toHaveBeenCalled()
    keys.press(5_000, later, true)
    jest.advanceTimersByTime(BURST_MS)
    expect(later).toHaveBeenCalledTimes(1)
  })

  test('after a key that did nothing, what is typed next does nothing, however slowly', () => {
    const act = jest.fn()
    const keys = new Burst()
    keys.press(1_000, () => keys.puzzle(1_000), false)
    for (const at of [1_400, 1_900, 2_300]) {
      keys.press(at, act, at !== 1_900)
      jest.advanceTimersByTime(400)
    }
    expect(act).not.toHaveBeenCalled()
  })
})
