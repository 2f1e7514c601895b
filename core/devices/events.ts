import { event } from '#core/kit'

type OfDevice = { accountId: number; device: string; name: string }
const about = ({ device }: Partial<OfDevice>) => device ?? ''

/** What can happen to the devices that carry jobs along. */
export const DEVICE_EVENTS = {
  'device.keep': event<OfDevice>()({ says: 'carries jobs along on', about, told: null, writes: false }),
  'device.end': event<OfDevice>()({ says: 'ended', about, told: null, writes: false, changesWho: true }),
}
