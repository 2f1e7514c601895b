import { createTransport } from 'nodemailer'
import type { Transporter } from 'nodemailer'

const TRIES = 12
const WAIT_MS = 500

/** Passes mail on to a server that takes some of it: what it refuses for good is only kept here, what it cannot take now is sent again. */
export class Relay {
  private readonly transport: Transporter
  private stopped = false

  constructor(url: string) {
    this.transport = createTransport({ url, pool: true, maxConnections: 4, ignoreTLS: true } as never)
  }

  pass(sender: string, to: string[], raw: Buffer, tries = 1): void {
    for (const address of to)
      this.transport.sendMail({ envelope: { from: sender, to: [address] }, raw }).catch((error: { responseCode?: number }) => {
        const forGood = (error.responseCode ?? 0) >= 500
        if (!forGood && tries < TRIES && !this.stopped) setTimeout(() => this.pass(sender, [address], raw, tries + 1), WAIT_MS * tries)
      })
  }

  stop(): void {
    this.stopped = true
    this.transport.close()
  }
}
