import { randomBytes } from 'node:crypto'
import sharp from 'sharp'
import { listOrders } from '#contract/orders'
import { reportRequest, uploadCounterFile } from '#contract/requests'
import { Client } from '../kit'
import type { House, Running } from '../kit'
import { median } from './table'
import type { Measure } from './table'

const A_SECOND = 50
const SECONDS = 20
const IDLE_ROUNDS = 60
const TIMES_IDLE = 3

/** Reports pour in, one in five with a photo of 2 MB, while somebody pages through the queue. */
export async function measureSubmissions(house: House, server: Running): Promise<Measure[]> {
  const anybody = new Client(server.url)
  const desk = await new Client(server.url).signIn('maren.quill')
  const photo = new Blob([new Uint8Array(await noisyPhoto())], { type: 'image/jpeg' })
  const page = async () => {
    const began = performance.now()
    await desk.must(listOrders, { station: 'dispatch', limit: 50 })
    return performance.now() - began
  }
  const idle: number[] = []
  for (let n = 0; n < IDLE_ROUNDS; n++) idle.push(await page())

  let sending = true
  const busy: number[] = []
  const looking = (async () => {
    while (sending) {
      busy.push(await page())
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
  })()
  let refused = 0
  const submit = async (n: number) => {
    const report = { site: 'SKE', placeId: 20, summary: `Burst ${n}`, description: 'Measured.', email: `burst-${n}@many.example` }
    const key = `burst-of-the-bench-${n}`
    try {
      const fileClaims = n % 5 === 0 ? [(await anybody.must(uploadCounterFile, { site: 'SKE' }, { file: photo })).claim] : undefined
      await anybody.must(reportRequest, { ...report, fileClaims }, { key })
      // A phone that lost the answer asks again: nothing may happen twice.
      if (n % 7 === 0) await anybody.must(reportRequest, { ...report, fileClaims }, { key })
    } catch {
      refused++
    }
  }
  const all: Promise<void>[] = []
  const began = performance.now()
  for (let n = 0; n < A_SECOND * SECONDS; n++) {
    all.push(submit(n))
    const wait = began + ((n + 1) * 1000) / A_SECOND - performance.now()
    if (wait > 0) await new Promise((resolve) => setTimeout(resolve, wait))
  }
  await Promise.all(all)
  const took = (performance.now() - began) / 1000
  sending = false
  await looking
  const [rows] = await house.rows<{ n: number; different: number }>(
    "SELECT COUNT(*) AS n, COUNT(DISTINCT summary) AS different FROM request WHERE summary LIKE 'Burst %'",
  )
  const [photos] = await house.rows<{ n: number }>(
    "SELECT COUNT(*) AS n FROM attachment a JOIN request r ON r.id = a.request_id WHERE r.summary LIKE 'Burst %'",
  )
  const sent = A_SECOND * SECONDS
  return [
    {
      what: `${A_SECOND} submissions a second for ${SECONDS} s, one in five with a photo of 2 MB`,
      measured: `${rows!.n} of ${sent} kept, ${rows!.n - rows!.different} doubled, ${photos!.n} photos, ${refused} refused, in ${took.toFixed(0)} s`,
      limit: 'none lost, none doubled',
      kept: rows!.n === sent && rows!.different === sent && photos!.n === sent / 5 && refused === 0,
    },
    {
      what: 'queue page of the Desk meanwhile',
      measured: `median ${median(busy).toFixed(1)} ms, ${(median(busy) / median(idle)).toFixed(2)} x idle (${median(idle).toFixed(1)} ms)`,
      limit: `at most ${TIMES_IDLE} x its idle median`,
      kept: median(busy) <= TIMES_IDLE * median(idle),
    },
  ]
}

/** About 2 MB of JPEG that cannot be made smaller. */
function noisyPhoto(): Promise<Buffer> {
  const [width, height] = [1_600, 1_200]
  return sharp(randomBytes(width * height * 3), { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 80 })
    .toBuffer()
}
