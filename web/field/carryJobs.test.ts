import { createPinia, setActivePinia } from 'pinia'
import * as contract from '#contract/field'
import { useCarrying } from '#web/devices'
import { carryJobs } from './carryJobs'

const EMPTY = { rows: [], photos: [], answers: [], talk: { rows: [] } }
const carried = () => document.documentElement.dataset.carried

/** A phone with two jobs ahead, the second of which cannot be read so many times. */
function phone(failing: number, away = () => false) {
  setActivePinia(createPinia())
  const carrying = useCarrying()
  const box = new Map<string, unknown>()
  const read: number[] = []
  Object.assign(carrying, {
    device: {},
    kept: (name: string) => Promise.resolve(box.get(name) ?? null),
    keep: (name: string, what: unknown) => Promise.resolve(void box.set(name, what)),
    dropJobs: () => Promise.resolve(),
    fetchKept: (endpoint: unknown, { visitId }: { visitId?: number }) => {
      if (away()) return Promise.reject(new Error('There is no signal.'))
      if (endpoint === contract.carryJobs)
        return Promise.resolve({
          marks: [
            { visitId: 1, mark: 'a' },
            { visitId: 2, mark: 'b' },
          ],
        })
      if (endpoint === contract.readJob) {
        read.push(visitId!)
        if (visitId === 2 && failing-- > 0) return Promise.reject(new Error('It broke off.'))
      }
      return Promise.resolve(EMPTY)
    },
  })
  return { read }
}
beforeEach(() => {
  jest.useFakeTimers()
  delete document.documentElement.dataset.carried
})
afterEach(() => jest.useRealTimers())

test('a phone with all of its jobs says so, and reads what has not changed no second time', async () => {
  const { read } = phone(0)
  await carryJobs()
  expect([carried(), read]).toEqual(['yes', [1, 2]])
  await carryJobs()
  expect(read).toEqual([1, 2])
})

test('a job that could not be read is read again by itself, later and later, and nobody is told before that all is there', async () => {
  const { read } = phone(2)
  await carryJobs()
  expect([carried(), read]).toEqual(['partly', [1, 2]])
  await jest.advanceTimersByTimeAsync(4_000)
  expect([carried(), read]).toEqual(['partly', [1, 2, 2]])
  await jest.advanceTimersByTimeAsync(4_000)
  expect(read).toHaveLength(3)
  await jest.advanceTimersByTimeAsync(4_000)
  expect([carried(), read]).toEqual(['yes', [1, 2, 2, 2]])
  await jest.advanceTimersByTimeAsync(3_600_000)
  expect(read).toHaveLength(4)
})

test('a line that fails altogether in between ends nothing: it is tried again', async () => {
  let away = false
  const { read } = phone(1, () => away)
  await carryJobs()
  away = true
  await jest.advanceTimersByTimeAsync(4_000)
  expect([carried(), read]).toEqual(['partly', [1, 2]])
  away = false
  await jest.advanceTimersByTimeAsync(8_000)
  expect([carried(), read]).toEqual(['yes', [1, 2, 2]])
})
