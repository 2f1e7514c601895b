import { eq } from 'drizzle-orm'
import webPush from 'web-push'
import { dropTold, heldPushes, logger, pushesWait, putOff } from '#server/kit'
import type { Service, Work, Works } from '#server/kit'
import { pushSubscriptions } from '../tables'
import { vapidOf } from './push'

const LOOK_MS = 1_000
const BATCH = 20
/** News is kept for a browser that is off for a day, by its push service; a service that does not answer is tried so often (our own choice, no source). */
const KEPT_SECONDS = 86_400
const ANSWER_MS = 10_000
/** The subscription is no more (RFC 8030, 7.3). */
const GONE = [404, 410]

/** Tells browsers of news, sealed for each alone. Several servers share what waits. */
class Pusher implements Work {
  private timer: NodeJS.Timeout | null = null
  private working: Promise<void> | null = null

  constructor(private readonly service: Service) {}

  start(): void {
    this.timer = setInterval(() => {
      this.working ??= this.round()
        .catch((error: unknown) => logger.error({ error }, 'telling browsers failed; it is tried again'))
        .finally(() => (this.working = null))
    }, LOOK_MS)
  }

  async stop(): Promise<void> {
    if (this.timer) clearInterval(this.timer)
    await this.working
  }

  private async round(): Promise<void> {
    const { db, clock } = this.service
    if (!(await pushesWait(db, clock()))) return
    // What is taken is put off at once: whatever becomes of this server, another tries it later.
    const taken = await db.transaction(async (tx) => {
      const rows = await heldPushes(tx, clock(), BATCH)
      for (const row of rows) await putOff(tx, row, clock())
      return rows
    })
    for (const { id, subscriptionId, sentence, leadsTo } of taken) {
      const [browser] = await db.select().from(pushSubscriptions).where(eq(pushSubscriptions.id, subscriptionId))
      if (!browser) continue
      const status = await this.send(browser, { sentence, leadsTo })
      if (GONE.includes(status)) await db.delete(pushSubscriptions).where(eq(pushSubscriptions.id, subscriptionId))
      else if (status >= 200 && status < 300) await dropTold(db, id)
    }
  }

  /** @returns what the push service answered; 0 where it did not */
  private async send({ endpoint, p256dh, auth }: typeof pushSubscriptions.$inferSelect, news: { sentence: string; leadsTo: string }): Promise<number> {
    const { links, publicUrl } = this.service
    const subject = publicUrl().startsWith('https:') ? publicUrl() : 'mailto:desk@evrix.example'
    const { headers, body } = webPush.generateRequestDetails({ endpoint, keys: { p256dh, auth } }, JSON.stringify(news), {
      TTL: KEPT_SECONDS,
      vapidDetails: { subject, ...vapidOf(links) },
    })
    const answer = await fetch(endpoint, {
      method: 'POST',
      headers: headers as Record<string, string>,
      body: new Uint8Array(body),
      redirect: 'error',
      signal: AbortSignal.timeout(ANSWER_MS),
    }).catch(() => null)
    return answer?.status ?? 0
  }
}

export const deviceWorks: Works = (service) => (service.config.pushOrigins.length ? [new Pusher(service)] : [])
