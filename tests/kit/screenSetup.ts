import { config } from '@vue/test-utils'
import { reads } from '#web/kit'

// What floats is found where it was asked for.
config.global.stubs = { ...config.global.stubs, teleport: true }

// Nothing read in one test is there in the next.
afterEach(() => reads.clear())
