import { config } from '@vue/test-utils'

// What floats is found where it was asked for.
config.global.stubs = { ...config.global.stubs, teleport: true }
