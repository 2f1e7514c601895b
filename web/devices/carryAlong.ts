import { useSession } from '#web/kit'
import type { ActKinds } from './acts'
import type { Box } from './box'
import { useCarrying } from './carrying'
import { enrol, openBox, recall, verify } from './device'
import { tellNoMore } from './tellHere'

let began: Promise<void> | null = null
/** To the network and the page, once for all who work here one after another. */
let listening = false

/**
 * Opens what this device carries along, before anything is shown: who works with it is known from what it keeps, and the
 * server is asked afterwards.
 *
 * @param ready called each time the server was reached and everything may be read anew
 * @param signedOut called when the server says that nobody is signed in here any more
 */
export function carryAlong(kinds: ActKinds, ready: () => unknown, signedOut: () => unknown): Promise<void> {
  began ??= begin(kinds, ready, signedOut).finally(() => {
    // Whoever signs in next begins anew.
    if (!useSession().self) began = null
  })
  return began
}

async function begin(kinds: ActKinds, ready: () => unknown, signedOut: () => unknown): Promise<void> {
  const [session, carrying] = [useSession(), useCarrying()]
  const box = await openBox()
  let asking = false
  /** Asks who is signed in here; what the device keeps stays, unless it was ended. */
  async function ask(): Promise<void> {
    if (asking || !carrying.device || !box) return
    asking = true
    const self = await verify(carrying.device).finally(() => (asking = false))
    if (self === 'away') return
    if (self) {
      session.assume(self)
      return join(box, ready)
    }
    carrying.close()
    session.forget()
    began = null
    signedOut()
  }
  carrying.knows(kinds, () => void ask())
  if (!box) return session.ensure()
  const remembered = await recall(box)
  if (remembered && (!session.self || session.self.accountId === remembered.self.accountId)) {
    if (!session.self) session.assume(remembered.self)
    await carrying.open(remembered.device)
    void ask()
  } else {
    await session.ensure()
    if (session.self) void join(box, ready)
  }
  if (listening) return
  listening = true
  addEventListener('online', () => void join(box, ready))
  document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && void carrying.flush())
}

/** The server knows of this device, and of everything that waits on it. Without signal it is done later. */
async function join(box: Box, ready: () => unknown): Promise<void> {
  const [session, carrying] = [useSession(), useCarrying()]
  if (!session.self) return
  const device = await enrol(box, session.self).catch(() => null)
  if (!device) return
  if (carrying.device?.accountId !== device.accountId) await carrying.open(device)
  await carrying.flush()
  await ready()
}

/** Whoever signs out leaves nothing that can be read; what was not sent stays sealed until they sign in here again. */
export async function leaveDevice(signOut: () => Promise<unknown>): Promise<void> {
  // Once nobody is signed in any more, nobody knows whose it was.
  const { device } = useCarrying()
  await tellNoMore()
  await signOut()
  if (device) await device.box.lock(device.accountId)
  began = null
}
