import { dropPush, keepPush, readPushKey } from '#contract/devices'
import { call, CallProblem } from '#web/kit'

/** Whether this browser can be told of news, and is. */
export type Telling = 'on' | 'off' | 'never'

const ready = async (): Promise<ServiceWorkerRegistration | null> =>
  typeof PushManager === 'undefined' || typeof Notification === 'undefined' || !navigator.serviceWorker ? null : navigator.serviceWorker.ready

/** How it stands; "never" where the browser has no push service, it was forbidden, or this installation sends to none. */
export async function tellingHere(): Promise<Telling> {
  if (typeof PushManager === 'undefined' || typeof Notification === 'undefined' || !navigator.serviceWorker || Notification.permission === 'denied')
    return 'never'
  const { key } = await call(readPushKey, {}).catch(() => ({ key: null }))
  if (!key) return 'never'
  const registration = await ready()
  return (await registration?.pushManager.getSubscription()) ? 'on' : 'off'
}

/**
 * Has this browser told of news from now on; asked for by a press, since browsers ask in turn.
 * @returns in a sentence what came of it
 */
export async function beTold(ident: string | undefined): Promise<{ on: boolean; sentence: string }> {
  const not = (sentence: string) => ({ on: false, sentence })
  if ((await Notification.requestPermission()) !== 'granted') return not('The browser may not tell you here. You are told by mail.')
  const { key } = await call(readPushKey, {})
  const registration = await ready()
  if (!key || !registration) return not('Nothing can be told here. You are told by mail.')
  const subscription = await registration.pushManager.subscribe({ userVisibleOnly: true, applicationServerKey: key }).catch(() => null)
  if (!subscription) return not('The browser’s push service cannot be reached now. Try again later; you are told by mail.')
  const { endpoint, keys } = subscription.toJSON()
  try {
    await call(keepPush, { endpoint: endpoint!, p256dh: keys!.p256dh!, auth: keys!.auth!, ...(ident ? { ident } : {}) })
    return { on: true, sentence: 'New and changed jobs, and what is written to you, are told on this phone.' }
  } catch (error) {
    await subscription.unsubscribe()
    if (!(error instanceof CallProblem)) throw error
    return not(error.reasons[0]?.sentence ?? error.message)
  }
}

/** No more from now on: by a press, or as somebody signs out. */
export async function tellNoMore(): Promise<void> {
  const registration = await ready().catch(() => null)
  const subscription = await registration?.pushManager.getSubscription().catch(() => null)
  if (!subscription) return
  await call(dropPush, { endpoint: subscription.endpoint }).catch(() => undefined)
  await subscription.unsubscribe().catch(() => false)
}
