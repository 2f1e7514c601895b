import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { simpleParser } from 'mailparser'
import type { AddressObject } from 'mailparser'
import { SMTPServer } from 'smtp-server'
import { Mailbox } from './mailbox'
import { mailPage } from './page'

const mailbox = new Mailbox(process.env.EVRIX_DATA_DIR ?? '.')

/** Accepts every mail over SMTP on loopback, and keeps it to be looked at. */
const smtp = new SMTPServer({
  authOptional: true,
  disabledCommands: ['STARTTLS', 'AUTH'],
  size: 25 * 1024 * 1024,
  onData(stream, session, done) {
    simpleParser(stream)
      .then((mail) => {
        const from = Array.isArray(mail.from) ? '' : ((mail.from as AddressObject | undefined)?.text ?? '')
        const to = session.envelope.rcptTo.map((recipient) => recipient.address.toLowerCase())
        mailbox.keep({ at: (mail.date ?? new Date()).toISOString(), from, to, subject: mail.subject ?? '', text: mail.text ?? '' })
        done()
      })
      .catch((error: Error) => done(error))
  },
})

const web = createServer((request, response) => {
  const url = new URL(request.url ?? '/', 'http://localhost')
  const to = url.searchParams.get('to') ?? undefined
  if (url.pathname === '/mails.json') {
    response.setHeader('Content-Type', 'application/json')
    response.end(JSON.stringify(mailbox.list(to)))
    return
  }
  response.setHeader('Content-Type', 'text/html; charset=utf-8')
  response.setHeader('Content-Security-Policy', "default-src 'none'; style-src 'unsafe-inline'")
  response.end(mailPage(mailbox, to))
})

smtp.listen(Number(process.env.EVRIX_SMTP_PORT ?? 0), '127.0.0.1', () => {
  web.listen(Number(process.env.EVRIX_MAIL_PORT ?? 0), '127.0.0.1', () => {
    const smtpPort = (smtp.server.address() as AddressInfo).port
    const webPort = (web.address() as AddressInfo).port
    process.stdout.write(`listening smtp://127.0.0.1:${smtpPort} http://127.0.0.1:${webPort}\n`)
  })
})

for (const signal of ['SIGTERM', 'SIGINT'] as const)
  process.once(signal, () => {
    web.close()
    web.closeAllConnections()
    smtp.close(() => process.exit(0))
  })
