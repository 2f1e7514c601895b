import { config } from '@vue/test-utils'
import { reads } from '#web/kit'

// What floats is found where it was asked for.
config.global.stubs = { ...config.global.stubs, teleport: true }

// Nothing read in one test is there in the next.
afterEach(() => reads.clear())

// What still waits for a frame as a suite ends would find its page gone.
const waiting = new Set<number>()
const request = window.requestAnimationFrame.bind(window)
window.requestAnimationFrame = (callback) => {
  const frame = request((now) => {
    waiting.delete(frame)
    callback(now)
  })
  waiting.add(frame)
  return frame
}
afterAll(() => waiting.forEach((frame) => window.cancelAnimationFrame(frame)))
