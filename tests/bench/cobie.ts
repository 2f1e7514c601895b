import { readFileSync } from 'node:fs'
import { utils, write } from '@e965/xlsx'
import { takeCobie } from '#contract/cobie'
import { listOrders } from '#contract/orders'
import { Client } from '../kit'
import type { House, Running } from '../kit'
import { median } from './table'
import type { Measure } from './table'

const [COMPONENTS, SPACES, TYPES] = [20_000, 400, 60]
const MOST_SECONDS = 60
const MOST_GROWTH_MB = 150
const MOST_RATIO = 2

/** A workbook of 20,000 components taken in while somebody else works on a queue. */
export async function measureCobie(house: House, server: Running): Promise<Measure[]> {
  const desk = await new Client(server.url).signIn('maren.quill')
  const clerk = await new Client(server.url).signIn('tobias.achterberg')
  const page = async () => {
    const began = performance.now()
    await clerk.must(listOrders, { station: 'planning' })
    return performance.now() - began
  }
  const pages = async (until: () => boolean) => {
    const took: number[] = []
    do {
      took.push(await page())
      await new Promise((resolve) => setTimeout(resolve, 100))
    } while (!until())
    return took
  }
  let n = 0
  await pages(() => ++n > 10)
  n = 0
  const idle = median(await pages(() => ++n > 40))
  const file = workbook()
  const before = memoryOf(server)
  let most = before
  const watch = setInterval(() => (most = Math.max(most, memoryOf(server))), 40)
  let done = false
  const began = performance.now()
  const taken = desk.must(takeCobie, { siteId: 1, take: true }, { file }).finally(() => (done = true))
  const busy = median(await pages(() => done))
  const { counts } = await taken
  const seconds = (performance.now() - began) / 1_000
  clearInterval(watch)
  const right = counts.Component.new === COMPONENTS && counts.Component.bad === 0
  const [row] = await house.rows<{ n: string }>("SELECT count(*) AS n FROM asset WHERE tag LIKE 'CB-%'")
  return [
    {
      what: `a COBie workbook of ${COMPONENTS} components taken in (${(file.size / 1e6).toFixed(1)} MB)`,
      measured: `${seconds.toFixed(1)} s${right && Number(row!.n) === COMPONENTS ? '' : ', and not all of it'}`,
      limit: `under ${MOST_SECONDS} s`,
      kept: right && seconds < MOST_SECONDS,
    },
    {
      what: 'memory of the server meanwhile',
      measured: `${(most - before).toFixed(0)} MB more`,
      limit: `less than ${MOST_GROWTH_MB} MB`,
      kept: most - before < MOST_GROWTH_MB,
    },
    {
      what: 'a page of a queue meanwhile',
      measured: `${busy.toFixed(0)} against ${idle.toFixed(0)} ms, ${(busy / idle).toFixed(1)} x`,
      limit: `at most ${MOST_RATIO} x`,
      kept: busy / idle <= MOST_RATIO,
    },
  ]
}

const memoryOf = (server: Running) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))![1]) / 1024

function workbook(): Blob {
  const book = utils.book_new()
  const add = (name: string, heading: string[], count: number, row: (n: number) => string[]) =>
    utils.book_append_sheet(book, utils.aoa_to_sheet([heading, ...Array.from({ length: count }, (_, n) => row(n))]), name)
  const code = (n: number) => `CB-${String(n).padStart(3, '0')}`
  add('Facility', ['Name', 'Description'], 1, () => ['CBB', 'Large building'])
  add('Floor', ['Name', 'Description'], 4, (n) => [`CBB-${n}`, `Level ${n}`])
  add('Space', ['Name', 'FloorName', 'Description'], SPACES, (n) => [code(n), `CBB-${n % 4}`, `Room ${n}`])
  add('Type', ['Name', 'Category', 'Manufacturer', 'ModelNumber', 'ExpectedLife', 'DurationUnit'], TYPES, (n) => [
    `Type ${n}`,
    'D3050',
    `Maker ${n % 7}`,
    `M-${n}`,
    '15',
    'year',
  ])
  add('Component', ['Name', 'TypeName', 'Space', 'Description', 'SerialNumber', 'InstallationDate', 'TagNumber'], COMPONENTS, (n) => [
    `Unit ${n}`,
    `Type ${n % TYPES}`,
    code(n % SPACES),
    `Unit ${n} of room ${n % SPACES}`,
    `S-${n}`,
    '2024-05-01',
    `CB-${String(n).padStart(6, '0')}`,
  ])
  add('Attribute', ['Name', 'SheetName', 'RowName', 'Value'], COMPONENTS, (n) => ['Condition', 'Component', `Unit ${n}`, 'Good'])
  return new Blob([new Uint8Array(write(book, { type: 'buffer', bookType: 'xlsx', compression: true }) as Buffer)])
}
