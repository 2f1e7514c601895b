/** The ways a request comes in; the one it came by is kept. */
export const CHANNELS = ['counter', 'call', 'email', 'visit', 'inspection', 'sensor', 'system', 'field'] as const
export type Channel = (typeof CHANNELS)[number]

/** The ways the desk itself enters: told by phone, at the desk, or found on an inspection. */
export const ENTERED_CHANNELS = ['call', 'visit', 'inspection'] as const
export type EnteredChannel = (typeof ENTERED_CHANNELS)[number]

export const CHANNEL_NAMES: Record<Channel, string> = {
  counter: 'Counter',
  call: 'Phone',
  email: 'Mail',
  visit: 'At the desk',
  inspection: 'Inspection',
  sensor: 'Sensor',
  system: 'Another system',
  field: 'On the spot',
}
