import { readFileSync } from 'node:fs'
import { readFlow } from '#contract/insight'
import { listOrders } from '#contract/orders'
import { listRequests, reportRequest } from '#contract/requests'
import { Client } from '../kit'
import type { Running } from '../kit'
import { median } from './table'
import type { Measure } from './table'

const PEOPLE = 100
const POSTS_A_SECOND = 20
const SECONDS = 30

/** A hundred people with an open Desk that reads what changed, while twenty reports a second come in. */
export async function measureCrowd(server: Running): Promise<Measure[]> {
  const signedIn = await new Client(server.url).signIn('maren.quill')
  const lines = await Promise.all(Array.from({ length: PEOPLE }, () => openLine(signedIn)))
  const anybody = new Client(server.url)
  let failed = 0
  let done = 0
  let most = 0
  let reading = true
  const took: number[] = []
  const watch = setInterval(() => (most = Math.max(most, memoryOf(server.pid))), 250)
  const ask = async (run: () => Promise<{ status: number }>) => {
    const began = performance.now()
    const reply = await run().catch(() => ({ status: 0 }))
    took.push(performance.now() - began)
    done++
    if (reply.status !== 200) failed++
  }
  // Each person looks at their queue or the Flow every few seconds, not all in the same moment.
  const person = async (index: number) => {
    await new Promise((resolve) => setTimeout(resolve, (index * 4_000) / PEOPLE))
    while (reading) {
      await ask(() =>
        index % 3 === 0
          ? signedIn.call(readFlow, {})
          : index % 3 === 1
            ? signedIn.call(listRequests, { station: 'intake' })
            : signedIn.call(listOrders, { station: 'planning' }),
      )
      await new Promise((resolve) => setTimeout(resolve, 4_000))
    }
  }
  const people = Array.from({ length: PEOPLE }, (_, index) => person(index))
  const posts: Promise<void>[] = []
  for (let n = 0; n < POSTS_A_SECOND * SECONDS; n++) {
    posts.push(ask(() => anybody.call(reportRequest, { site: 'SKE', placeId: 20, summary: `Load ${n}`, description: 'Measured.' })))
    await new Promise((resolve) => setTimeout(resolve, 1000 / POSTS_A_SECOND))
  }
  await Promise.all(posts)
  reading = false
  await Promise.all(people)
  clearInterval(watch)
  const heard = lines.filter((line) => line.heard > 0).length
  lines.forEach((line) => line.close())
  return [
    {
      what: `${PEOPLE} people at the Desk and ${POSTS_A_SECOND} posts a second for ${SECONDS} s`,
      measured: `${failed} of ${done} failed, ${heard} lines heard, median ${median(took).toFixed(0)} ms`,
      limit: 'no failed request',
      kept: failed === 0 && heard === PEOPLE,
    },
    { what: 'memory of the server meanwhile', measured: `${most.toFixed(0)} MB`, limit: 'under 400 MB', kept: most < 400 },
  ]
}

async function openLine(client: Client): Promise<{ heard: number; close: () => void }> {
  const end = new AbortController()
  const line = { heard: 0, close: () => end.abort() }
  const response = await fetch(`${client.url}/api/live`, { headers: { Cookie: client.session }, signal: end.signal })
  void (async () => {
    try {
      for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>) if (Buffer.from(chunk).includes('data:')) line.heard++
    } catch {
      // Closed by us.
    }
  })()
  return line
}

/** Resident memory in megabytes. */
function memoryOf(pid: number): number {
  const [, kilobytes] = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))!
  return Number(kilobytes) / 1024
}
