import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Endpoint } from '#contract/kit'
import type { FieldActName } from '#core/field'
import { address, call, CallProblem, forgetting, freshKey, serverNow } from '#web/kit'
import type { ActKind, ActKinds } from './acts'
import { heard } from './device'
import type { Device } from './device'
import { dropCopies, fileNameOf, keepAs, keepBlob, keptAs, keptBlob } from './kept'
import { Outbox } from './outbox'
import type { Act, ActBody, Outcome } from './outbox'
import { sendFile } from './sendFile'

/** How long whoever recorded something waits to see it taken, before it is said to be waiting (our own choice, no source). */
const SEEN_TAKEN_MS = 5_000
/** How long the answer to an act is waited for on a line that is there and brings nothing. */
const ANSWER_MS = 20_000
/** By how much the clock of a phone is seen to go back on a slow line; more, and it was set. */
const CLOCK_SLACK_MS = 60_000
const AGAIN_MS = [3_000, 8_000, 20_000, 60_000]

type Changed = (value: unknown) => void

/** An act as it is about to be recorded. */
export type Recording = ActBody extends infer Body ? (Body extends ActBody ? Omit<Body, 'at' | 'sent' | 'problem'> : never) : never

/** What this device carries along: answers that were read, files, and acts still to be sent. Without a place to keep them, everything goes straight to the server. */
export const useCarrying = defineStore('carrying', () => {
  const device = shallowRef<Device | null>(null)
  const acts = shallowRef<readonly Act[]>([])
  /** The last that was asked of the server was not answered. */
  const away = ref(false)
  const refused = computed(() => acts.value.filter(({ body }) => body.problem))
  /** What is on its way as soon as it can be: not what was refused, nor what waits behind that. */
  const waiting = computed(() => {
    const stuck = new Set(refused.value.map(({ body }) => body.visitId))
    return acts.value.filter(({ body }) => !stuck.has(body.visitId))
  })
  let outbox: Outbox | null = null
  let kinds: ActKinds | null = null
  let signedOut: (() => void) | null = null
  let tries = 0
  let looked = 0
  let latest = ''
  let soon: ReturnType<typeof setTimeout> | undefined
  const listeners = new Map<string, Set<Changed>>()
  /** Other pages on this device, which show the same acts. */
  const pages = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('evrix-outbox')
  if (pages) pages.onmessage = () => void look()

  const kindOf = <Name extends FieldActName>(name: Name): ActKind<Name> => kinds![name]

  /** From now on what is read and done is kept for this person. */
  async function open(opened: Device): Promise<void> {
    device.value = opened
    outbox = new Outbox({
      box: opened.box,
      seal: opened.seal,
      accountId: opened.accountId,
      send,
      copiesOf,
      alone: (work) => (navigator.locks ? (navigator.locks.request(`evrix-outbox-${opened.accountId}`, work) as ReturnType<typeof work>) : work()),
      freshKey,
      changed: () => {
        pages?.postMessage('changed')
        void look()
      },
    })
    await look()
  }

  function close(): void {
    clearTimeout(soon)
    device.value = outbox = null
    acts.value = []
  }
  forgetting.add(close)

  /** Reads what waits; what was asked last is shown, whichever is read first. */
  async function look(): Promise<void> {
    if (!outbox) return
    const mine = ++looked
    const found = await outbox.acts()
    if (mine === looked && outbox) acts.value = found
  }

  /** Sends what waits, now; and again by itself as long as something is left. */
  async function flush(): Promise<void> {
    if (!outbox) return
    clearTimeout(soon)
    const before = waiting.value.length
    await outbox.flush()
    await look()
    tries = waiting.value.length < before ? 0 : tries + 1
    if (waiting.value.length) soon = setTimeout(() => void flush(), AGAIN_MS[Math.min(tries, AGAIN_MS.length) - 1] ?? AGAIN_MS[0])
  }

  async function send(act: Act, keep: (body: ActBody) => Promise<void>, more: boolean): Promise<unknown> {
    try {
      const answer = await sendAct(act, keep, more)
      reached()
      return answer
    } catch (error) {
      failed(error)
      throw error
    }
  }

  /** What a failure says of the line, and of who is signed in. */
  function failed(error: unknown): void {
    if (!(error instanceof CallProblem)) return
    if (error.problem.status === 0) away.value = true
    if (error.problem.status === 401) signedOut?.()
  }

  async function sendAct({ key, body }: Act, keep: (body: ActBody) => Promise<void>, minimal: boolean): Promise<unknown> {
    const { endpoint, input } = kindOf(body.name)
    const sent = body.fileId ? await sendPhoto(body, keep) : {}
    return call(endpoint as Endpoint<object, unknown>, { ...input(body as never), ...sent, happenedAt: body.at }, { key, within: ANSWER_MS, minimal })
  }

  async function sendPhoto(body: ActBody, keep: (body: ActBody) => Promise<void>): Promise<{ upload: string; checksum: string }> {
    const { box, seal, accountId } = device.value!
    const file = await box.file(accountId, body.fileId!)
    if (!file) throw new CallProblem({ type: 'about:blank', title: 'No photo', status: 422, detail: 'The photo is not on this phone any more. Take it again.' })
    const bytes = await seal.openBytes(file.sealed)
    const checksum = body.sent?.checksum ?? hex(await crypto.subtle.digest('SHA-256', bytes))
    const upload = await sendFile(new Blob([bytes], { type: file.mime }), body.sent?.url, (url) => keep({ ...body, sent: { url, checksum } }))
    return { upload, checksum }
  }

  async function copiesOf(act: Act, answer: unknown) {
    if (!device.value) return []
    const found = await kindOf(act.body.name).keeps(act, (answer ?? null) as never, { read: (name) => keptAs(device.value!, name) })
    const { seal } = device.value
    found.forEach(({ name, value }) => listeners.get(name)?.forEach((changed) => changed(value)))
    return Promise.all(found.map(async ({ name, value }) => ({ name, sealed: await seal.close(value) })))
  }

  function reached(): void {
    away.value = false
    if (device.value) void heard(device.value)
  }

  /**
   * Records an act: it is kept on the device, shown at once, and sent as soon as it can be.
   *
   * @returns the server’s answer where there is one soon enough; null while it waits
   * @throws CallProblem when it is refused while whoever recorded it looks on: it is not kept then
   */
  async function record<Answer>(recording: Recording, photo?: Blob): Promise<Answer | null> {
    const body = { ...recording, at: momentNow() } as ActBody
    if (!outbox) return sendNow<Answer>(body, photo)
    const file = photo && { bytes: await photo.arrayBuffer(), mime: photo.type }
    const kept = await outbox.record(file ? { ...body, fileId: fileNameOf(freshKey()) } : body, file).catch(() => null)
    // A device that is full keeps nothing more; with signal it is not needed.
    if (!kept) return sendNow<Answer>(body, photo)
    const { seq, outcome } = kept
    // A photo takes as long as it takes; nobody waits for it, nor for a signal that is not there.
    const known = await Promise.race([outcome, wait(photo || away.value ? 0 : SEEN_TAKEN_MS)])
    if (known?.is === 'sent') return (known.answer as Answer | undefined) ?? null
    if (known?.is === 'refused') {
      const act = acts.value.find((one) => one.seq === seq) ?? (await outbox.acts()).find((one) => one.seq === seq)
      if (act) await outbox.leave(act)
      throw new CallProblem(known.problem)
    }
    void flush()
    return null
  }

  /** Moments of one phone do not go back when its idea of the server’s clock does by a little. */
  function momentNow(): string {
    const before = acts.value.at(-1)?.body.at ?? ''
    latest = [latest, before].sort().at(-1)!
    const [now, after] = [serverNow().getTime(), new Date(latest).getTime() + 1]
    latest = new Date(after > now && after - now < CLOCK_SLACK_MS ? after : now).toISOString()
    return latest
  }

  const wait = (ms: number) => new Promise<Outcome | null>((resolve) => setTimeout(() => resolve(null), ms))

  async function sendNow<Answer>(body: ActBody, photo?: Blob): Promise<Answer> {
    const { endpoint, input, whole } = kindOf(body.name)
    return (await call((photo ? whole! : endpoint) as Endpoint<object, unknown>, input(body as never), { file: photo })) as Answer
  }

  /** By what name an answer is kept. */
  const nameOf = <Input extends object>(endpoint: Endpoint<Input, unknown>, input: Input) => address(endpoint, input)

  /** Reads from the server, and keeps the answer. What is not theirs any more is not kept either. @throws CallProblem */
  async function fetchKept<Input extends object, Answer>(endpoint: Endpoint<Input, Answer>, input: Input): Promise<Answer> {
    const name = nameOf(endpoint, input)
    try {
      const answer = await call(endpoint, input)
      reached()
      if (device.value) await keepAs(device.value, name, answer)
      return answer
    } catch (error) {
      if (!(error instanceof CallProblem)) throw error
      failed(error)
      if (device.value && [403, 404].includes(error.problem.status)) await device.value.box.dropCopies(device.value.accountId, (one) => one === name)
      throw error
    }
  }

  /** What the server says, or without signal what it said last. @throws CallProblem */
  async function readAny<Input extends object, Answer>(endpoint: Endpoint<Input, Answer>, input: Input): Promise<Answer> {
    try {
      return await fetchKept(endpoint, input)
    } catch (error) {
      const kept = device.value && (await keptAs<Answer>(device.value, nameOf(endpoint, input)))
      if (kept) return kept
      throw error
    }
  }

  /** Bytes of a document or a picture: those that are kept, else the server’s, which are kept then. @throws CallProblem */
  async function blob(url: string): Promise<Blob> {
    const kept = device.value && (await keptBlob(device.value, url))
    if (kept) return kept
    const response = await fetch(url).catch(() => null)
    if (!response?.ok) {
      if (!response) away.value = true
      throw new CallProblem({
        type: 'about:blank',
        title: 'Not here',
        status: response?.status ?? 0,
        detail: 'This is not on the phone, and there is no signal.',
      })
    }
    const found = await response.blob()
    if (device.value) await keepBlob(device.value, url, found)
    return found
  }

  /** Of jobs that are not carried any more nothing stays, unless something of them is still to be sent. */
  async function dropJobs(carried: Set<number>): Promise<void> {
    if (device.value) await dropCopies(device.value, new Set([...carried, ...acts.value.map(({ body }) => body.visitId)]))
  }

  function onKept(name: string, changed: Changed): () => void {
    const all = listeners.get(name) ?? new Set()
    listeners.set(name, all.add(changed))
    return () => void all.delete(changed)
  }

  return {
    device,
    acts,
    refused,
    waiting,
    away,
    /** How acts are sent, and what is done when nobody is signed in any more. */
    knows: (table: ActKinds, whenSignedOut: () => void = () => undefined) => {
      kinds = table
      signedOut = whenSignedOut
    },
    says: (body: ActBody) => kindOf(body.name).says(body),
    open,
    close,
    flush,
    record,
    retry: async (act: Act, body?: ActBody) => outbox?.retry(act, body),
    leave: async (act: Act) => outbox?.leave(act),
    nameOf,
    kept: async <T>(name: string) => (device.value ? keptAs<T>(device.value, name) : null),
    keep: async (name: string, value: unknown) => device.value && keepAs(device.value, name, value),
    fetchKept,
    readAny,
    blob,
    ownFile: async (id: string) => (device.value ? keptBlob(device.value, id) : null),
    dropJobs,
    onKept,
  }
})

const hex = (bytes: ArrayBuffer) => [...new Uint8Array(bytes)].map((one) => one.toString(16).padStart(2, '0')).join('')

export type Carrying = ReturnType<typeof useCarrying>
