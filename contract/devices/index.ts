import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'

/** A phone or computer that carries somebody's jobs along, sealed. */
export interface DeviceRow {
  id: number
  name: string
  createdAt: Instant
  heardAt: Instant
  endedAt: Instant | null
}

interface KeepDevice {
  /** What the device calls itself, the same each time. */
  ident: string
  name: string
}
export const keepDevice = endpoint<KeepDevice, { key: string }>({
  method: 'POST',
  path: '/api/devices',
  says: 'Carry my jobs along on this device: the key by which it seals what it keeps, the same each time.',
  may: 'self.read',
  secret: true,
  input: Joi.object<KeepDevice, true>({ ident: field.token().required(), name: field.line(120).required() }),
})

export const listMyDevices = endpoint<object, { rows: DeviceRow[] }>({
  method: 'GET',
  path: '/api/devices',
  says: 'Devices that carry my jobs along.',
  may: 'self.read',
})

export const endMyDevice = endpoint<{ id: number }, { rows: DeviceRow[] }>({
  method: 'POST',
  path: '/api/devices/:id/end',
  says: 'End a device of mine that was lost: it is signed out, and what it keeps becomes unreadable as soon as it hears of it.',
  may: 'self.read',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})

/** Asked by a device that is not signed in any more, to know whether it was ended. */
export const readDeviceStanding = endpoint<{ ident: string }, { ended: boolean }>({
  method: 'GET',
  path: '/api/device-standing/:ident',
  says: 'Whether a device was ended.',
  may: 'public',
  input: Joi.object<{ ident: string }, true>({ ident: field.token().required() }),
})

/** By which key a browser lets us tell it of news; null where this installation sends to no push service. */
export const readPushKey = endpoint<object, { key: string | null }>({
  method: 'GET',
  path: '/api/push',
  says: 'The key by which a browser recognizes what we send it (RFC 8292); none where nothing is sent.',
  may: 'self.read',
})

interface KeepPush {
  endpoint: string
  p256dh: string
  auth: string
  /** What the device calls itself, where it carries jobs along. */
  ident?: string
}
export const keepPush = endpoint<KeepPush, { kept: true }>({
  method: 'POST',
  path: '/api/push',
  says: 'Tell me of news on this device, through the push service of its browser (RFC 8030).',
  may: 'self.read',
  input: Joi.object<KeepPush, true>({
    endpoint: Joi.string()
      .uri({ scheme: ['https', 'http'] })
      .max(700)
      .required(),
    p256dh: Joi.string()
      .pattern(/^[\w-]{80,100}={0,2}$/)
      .required(),
    auth: Joi.string()
      .pattern(/^[\w-]{20,30}={0,2}$/)
      .required(),
    ident: field.token(),
  }),
})

export const dropPush = endpoint<{ endpoint: string }, { kept: false }>({
  method: 'POST',
  path: '/api/push/drop',
  says: 'Tell me nothing on this device any more.',
  may: 'self.read',
  input: Joi.object<{ endpoint: string }, true>({ endpoint: Joi.string().max(700).required() }),
})

export const listDevices = endpoint<{ accountId: number }, { rows: DeviceRow[] }>({
  method: 'GET',
  path: '/api/setup/accounts/:accountId/devices',
  says: 'Devices that carry the jobs of somebody at your sites along.',
  may: 'setup.edit',
  input: Joi.object<{ accountId: number }, true>({ accountId: field.id().required() }),
})

export const endDevice = endpoint<{ accountId: number; id: number }, { rows: DeviceRow[] }>({
  method: 'POST',
  path: '/api/setup/accounts/:accountId/devices/:id/end',
  says: 'End a device of somebody that was lost.',
  may: 'setup.edit',
  input: Joi.object<{ accountId: number; id: number }, true>({ accountId: field.id().required(), id: field.id().required() }),
})
