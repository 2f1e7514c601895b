import { keepDevice, readDeviceStanding } from '#contract/devices'
import { readSelf } from '#contract/people'
import type { Self } from '#contract/people'
import { mayOpen } from '#core/devices'
import { call, CallProblem, clockOffset, serverNow, setClockOffset } from '#web/kit'
import { Box } from './box'
import type { Holder } from './box'
import { Seal } from './seal'

/** What a device that carries jobs along has open: for whom, and the key of what it keeps. */
export interface Device {
  box: Box
  seal: Seal
  accountId: number
}

const SELF = 'self'

/** Whether this browser lets anything be kept: not on a page that came over an open line, not in every private window. */
export const mayKeep = (): boolean => globalThis.isSecureContext && typeof indexedDB !== 'undefined' && 'subtle' in crypto

const randomIdent = () =>
  btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(32)))).replace(/[+/=]/g, (one) => ({ '+': '-', '/': '_' })[one] ?? '')

export const openBox = (): Promise<Box | null> => (mayKeep() ? Box.open().catch(() => null) : Promise.resolve(null))

/** Who works with this device by what it knows itself, without asking anybody; nobody once it has not heard of the server for too long. */
export async function recall(box: Box): Promise<{ device: Device; self: Self } | null> {
  const [holder] = (await box.holders()).sort((a, b) => b.heardAt - a.heardAt)
  if (!holder?.key) return null
  if (!mayOpen(new Date(holder.heardAt), new Date(Date.now() + holder.offset))) {
    await box.lock(holder.accountId)
    return null
  }
  const device = { box, seal: Seal.withKey(holder.key), accountId: holder.accountId }
  const kept = await box.copy(holder.accountId, SELF)
  const self = kept && (await device.seal.open<Self>(kept.sealed).catch(() => null))
  if (!self) return null
  setClockOffset(holder.offset)
  return { device, self }
}

/** Has this device carry along for whoever is signed in; everybody else’s copy on it is locked. @throws CallProblem */
export async function enrol(box: Box, self: Self): Promise<Device> {
  const { accountId } = self
  const { key } = await call(keepDevice, { ident: await box.ident(randomIdent), name: deviceName() })
  for (const holder of await box.holders()) if (holder.accountId !== accountId) await box.lock(holder.accountId)
  const seal = await Seal.of(key)
  await box.keepHolder(heardNow({ accountId, key: seal.key }))
  await box.keepCopy(accountId, { name: SELF, sealed: await seal.close(self) })
  return { box, seal, accountId }
}

const heardNow = (holder: Pick<Holder, 'accountId' | 'key'>): Holder => ({ ...holder, heardAt: serverNow().getTime(), offset: clockOffset() })

/** The server was heard just now: what is kept may be read for another while. */
export const heard = ({ box, seal, accountId }: Device): Promise<void> => box.keepHolder(heardNow({ accountId, key: seal.key }))

/**
 * Asks who this is. Signed out, the copy stays until its person signs in again, unless the device was ended: then it
 * cannot be read any more from now on.
 *
 * @returns null when nobody is signed in; `away` while the server cannot be reached
 */
export async function verify(device: Device): Promise<Self | 'away' | null> {
  try {
    const self = await call(readSelf, {})
    if (self.accountId !== device.accountId) await device.box.lock(device.accountId)
    return self
  } catch (error) {
    if (!(error instanceof CallProblem) || error.problem.status !== 401) return 'away'
    const { ended } = await call(readDeviceStanding, { ident: await device.box.ident(randomIdent) }).catch(() => ({ ended: false }))
    if (ended) await device.box.lock(device.accountId)
    return null
  }
}

/** As a person tells their devices apart: "Chrome on Android". */
function deviceName(): string {
  const agent = navigator.userAgent
  const found = (names: [RegExp, string][], otherwise: string) => names.find(([pattern]) => pattern.test(agent))?.[1] ?? otherwise
  const browser = found(
    [
      [/Edg/, 'Edge'],
      [/Firefox|FxiOS/, 'Firefox'],
      [/Chrome|CriOS/, 'Chrome'],
      [/Safari/, 'Safari'],
    ],
    'A browser',
  )
  const system = found(
    [
      [/Android/, 'Android'],
      [/iPhone|iPad/, 'iOS'],
      [/Windows/, 'Windows'],
      [/Mac OS/, 'macOS'],
      [/Linux/, 'Linux'],
    ],
    'a device',
  )
  return `${browser} on ${system}`
}
