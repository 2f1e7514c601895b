import type { Problem } from '#contract/kit'
import type { RecordedAct } from '#core/field'
import type { Box, Copy, StoredAct } from './box'
import type { Seal } from './seal'

/** What an act says: sealed as it lies on the device. */
export type ActBody = RecordedAct & {
  /** Where the photo it carries has got to. */
  sent?: { url?: string; checksum: string }
  /** Why the server did not take it. */
  problem?: Problem
}

export interface Act {
  seq: number
  key: string
  body: ActBody
}

/** What became of an act for now. */
export type Outcome = { is: 'sent'; answer: unknown } | { is: 'refused'; problem: Problem } | { is: 'waits' }

/** An answer that says no, as whatever sends throws it. */
export interface Refused {
  problem: Problem
}
const problemIn = (error: unknown): Problem | null => (error as Partial<Refused>).problem ?? null

/** No answer, or one that asks to come again: the act waits. Who is signed out signs in first. */
const COME_AGAIN = [0, 401, 408, 425, 429]
const isAway = ({ status }: Problem): boolean => COME_AGAIN.includes(status) || status >= 500
/** It was done the first time, whose answer was lost for so long that nobody keeps it any more. */
const wasDone = ({ reasons }: Problem): boolean => reasons?.some(({ code }) => code === 'done_before') ?? false

interface Means {
  box: Box
  seal: Seal
  accountId: number
  /** Sends one act; with more of its job behind it, how the job stands then is not asked for. @throws Refused */
  send: (act: Act, keep: (body: ActBody) => Promise<void>, more: boolean) => Promise<unknown>
  /** What is kept instead of what was read before, by the answer, or by the act itself where there is none. */
  copiesOf: (act: Act, answer: unknown) => Promise<Copy[]>
  /** One sender at a time on this device, however many pages are open. */
  alone: <T>(work: () => Promise<T>) => Promise<T>
  freshKey: () => string
  /** Called whenever something was recorded, sent or refused. */
  changed: () => void
}

/**
 * What was recorded and is still to be sent, in order. An act is kept on the device before anything else, is sent under its
 * own key until an answer is known, and goes only then: whatever breaks, the server holds it once. What the server refuses
 * stays and is shown; later acts on the same job wait for that to be solved, those on other jobs do not.
 */
export class Outbox {
  private readonly waiting = new Map<number, (outcome: Outcome) => void>()
  private round: Promise<void> | null = null
  private again = false

  constructor(private readonly means: Means) {}

  /** Keeps an act. @returns its place, and what becomes of it once it was tried to send it */
  async record(body: ActBody, file?: { bytes: ArrayBuffer; mime: string }): Promise<{ seq: number; outcome: Promise<Outcome> }> {
    const { box, seal, accountId, freshKey } = this.means
    const kept = file && { id: body.fileId!, sealed: await seal.closeBytes(file.bytes), mime: file.mime, bytes: file.bytes.byteLength }
    const seq = await box.add({ accountId, key: freshKey(), sealed: await seal.close(body) }, kept)
    const outcome = new Promise<Outcome>((resolve) => this.waiting.set(seq, resolve))
    this.means.changed()
    void this.flush().catch(() => undefined)
    return { seq, outcome }
  }

  /** Everything not sent yet, in order. What cannot be read was kept under a key that is gone. */
  async acts(): Promise<Act[]> {
    const stored = await this.means.box.acts(this.means.accountId)
    const read = await Promise.all(stored.map((one) => this.read(one)))
    return read.filter((act) => act !== null)
  }

  private read = ({ seq, key, sealed }: StoredAct): Promise<Act | null> =>
    this.means.seal.open<ActBody>(sealed).then(
      (body) => ({ seq, key, body }),
      () => null,
    )

  /** Sends what waits, as far as it can be sent. Asked again while it is at it, it looks again. */
  flush(): Promise<void> {
    this.again = true
    this.round ??= this.means.alone(async () => {
      try {
        while (this.again) {
          this.again = false
          await this.sendAll()
        }
      } catch (error) {
        // The device itself failed: whatever was asked about waits, and is tried again with the next.
        for (const seq of [...this.waiting.keys()]) this.tell(seq, { is: 'waits' })
        throw error
      } finally {
        // At the same moment as it was last looked, so that nobody who asks meanwhile waits for a round that is over.
        this.round = null
      }
    })
    return this.round
  }

  private async sendAll(): Promise<void> {
    const { box, accountId } = this.means
    const acts = await this.acts()
    const stuck = new Set(acts.filter(({ body }) => body.problem).map(({ body }) => body.visitId))
    for (const [index, act] of acts.entries()) {
      if (stuck.has(act.body.visitId) || !(await box.holds(accountId, act.seq))) continue
      const more = acts.slice(index + 1).some(({ body }) => body.visitId === act.body.visitId)
      const now = await this.sendOne(act, more)
      if (now === 'away') break
      if (now === 'refused') stuck.add(act.body.visitId)
    }
    // Whatever was asked about and is not there any more was sent by another page.
    for (const seq of [...this.waiting.keys()])
      if (!this.again) this.tell(seq, (await box.holds(accountId, seq)) ? { is: 'waits' } : { is: 'sent', answer: undefined })
  }

  private async sendOne(act: Act, more: boolean): Promise<'sent' | 'refused' | 'away'> {
    try {
      const answer = await this.means.send(act, (body) => this.write({ ...act, body }), more)
      await this.settle(act, { is: 'sent', answer }, await this.means.copiesOf(act, answer))
      return 'sent'
    } catch (error) {
      const problem = problemIn(error)
      if (!problem || isAway(problem)) return 'away'
      if (wasDone(problem)) {
        await this.settle(act, { is: 'sent', answer: undefined }, await this.means.copiesOf(act, undefined))
        return 'sent'
      }
      const { problem: _earlier, ...body } = act.body
      await this.write({ ...act, body: { ...body, problem } })
      this.tell(act.seq, { is: 'refused', problem })
      this.means.changed()
      return 'refused'
    }
  }

  private async settle({ seq, body }: Act, outcome: Outcome, copies: Copy[] = []): Promise<void> {
    await this.means.box.settle(this.means.accountId, seq, body.fileId, copies)
    this.tell(seq, outcome)
    this.means.changed()
  }

  private async write({ seq, key, body }: Act): Promise<void> {
    const { box, seal, accountId } = this.means
    await box.change({ seq, key, accountId, sealed: await seal.close(body) })
  }

  private tell(seq: number, outcome: Outcome): void {
    this.waiting.get(seq)?.(outcome)
    this.waiting.delete(seq)
  }

  /** Takes an act back that was not sent, or is left out: whoever recorded it knows. */
  leave = (act: Act): Promise<void> => this.settle(act, { is: 'waits' })

  /** A refused act is tried again, as it was or put right. It keeps its key: nothing was done under it, and nothing is done under it twice. */
  async retry(act: Act, body: ActBody = act.body): Promise<void> {
    // A photo goes whole once more: what was sent of it may be what was wrong.
    const { problem: _solved, sent: _gone, ...again } = body
    await this.write({ ...act, body: again })
    this.means.changed()
    void this.flush().catch(() => undefined)
  }
}
