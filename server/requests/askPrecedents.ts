import type { Asked } from '#core/requests'
import { inThread } from '#server/kit'
import type { Service } from '#server/kit'
import type { EventKind } from '#core/events'
import type { PrecedentAnswer, PrecedentJob } from './precedents.worker'

const ask = inThread<PrecedentJob, PrecedentAnswer>('precedents.worker', { stays: true })
const LEARN_FROM = new Set<EventKind>(['request.accept', 'request.join', 'request.edit'])
const LEARN_AFTER_MS = 400

/** What decided history says of something told: asked of the thread that keeps it, which learns what is decided from then on. */
export function askPrecedents(service: Service, asked: Asked): Promise<PrecedentAnswer> {
  learn(service)
  return ask({ databaseUrl: service.config.databaseUrl, ask: asked })
}

/** The ids of a place and of those around it, from its path. */
export const idsOf = (path: string | null) => (path ?? '').split('/').filter(Boolean).map(Number)

const learning = new WeakSet<Service['publisher']>()

/** What is decided from now on is learned from soon after. */
function learn({ publisher, config }: Service): void {
  if (learning.has(publisher)) return
  learning.add(publisher)
  const changed = new Set<number>()
  let timer: NodeJS.Timeout | null = null
  publisher.published.on('event', (event: { kind: EventKind; requestId: number | null }) => {
    if (!event.requestId || !LEARN_FROM.has(event.kind)) return
    changed.add(event.requestId)
    timer ??= setTimeout(() => {
      timer = null
      const ids = [...changed]
      changed.clear()
      ask({ databaseUrl: config.databaseUrl, changed: ids }).catch(() => ids.forEach((id) => changed.add(id)))
    }, LEARN_AFTER_MS)
  })
}
