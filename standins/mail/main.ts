import type { AddressInfo } from 'node:net'
import express from 'express'
import { simpleParser } from 'mailparser'
import type { AddressObject } from 'mailparser'
import multer from 'multer'
import { createTransport } from 'nodemailer'
import { SMTPServer } from 'smtp-server'
import { Mailbox } from './mailbox'
import { mailPage, writePage } from './page'
import { Relay } from './relay'

const LARGEST = 40 * 1024 * 1024
const mailbox = new Mailbox(process.env.EVRIX_DATA_DIR ?? '.')
const relay = process.env.EVRIX_INBOUND_URL ? new Relay(process.env.EVRIX_INBOUND_URL) : null

/** Accepts every mail over SMTP on loopback, keeps it to be looked at, and passes on what is for the desks. */
const smtp = new SMTPServer({
  authOptional: true,
  disabledCommands: ['STARTTLS', 'AUTH'],
  size: LARGEST,
  onData(stream, session, done) {
    const chunks: Buffer[] = []
    stream.on('data', (chunk: Buffer) => chunks.push(chunk))
    stream.once('end', () => {
      const raw = Buffer.concat(chunks)
      const to = session.envelope.rcptTo.map((recipient) => recipient.address.toLowerCase())
      const sender = session.envelope.mailFrom ? session.envelope.mailFrom.address : ''
      simpleParser(raw)
        .then((mail) => {
          const textOf = (address: AddressObject | AddressObject[] | undefined) => (Array.isArray(address) ? address[0] : address)?.text ?? ''
          mailbox.keep({
            at: (mail.date ?? new Date()).toISOString(),
            from: textOf(mail.from),
            to,
            subject: mail.subject ?? '',
            text: mail.text ?? '',
            messageId: mail.messageId ?? null,
            references: typeof mail.references === 'string' ? [mail.references] : (mail.references ?? []),
            replyTo: mail.replyTo ? (mail.replyTo.value[0]?.address ?? null) : null,
            files: mail.attachments.map((file) => ({ name: file.filename ?? 'file', bytes: file.size })),
          })
        })
        .catch(() => undefined)
        .finally(() => {
          relay?.pass(sender, to, raw)
          done()
        })
    })
  },
})

const app = express()
app.disable('x-powered-by')
app.use((_request, response, next) => {
  response.setHeader('Content-Security-Policy', "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'")
  next()
})
app.get('/mails.json', (request, response) => {
  response.json(mailbox.list(request.query.to as string | undefined))
})
app.get('/write', (request, response) => {
  response.type('html').send(writePage(mailbox.find(Number(request.query.reply)), request.query.from as string | undefined))
})
app.post('/write', multer({ storage: multer.memoryStorage(), limits: { fileSize: LARGEST, files: 10 } }).array('files'), (request, response, next) => {
  const { from, to, subject, text, reply } = request.body as Record<string, string>
  const answered = mailbox.find(Number(reply))
  const port = (smtp.server.address() as AddressInfo).port
  createTransport({ host: '127.0.0.1', port, ignoreTLS: true })
    .sendMail({
      from,
      to,
      subject,
      text,
      ...(answered?.messageId ? { inReplyTo: answered.messageId, references: [...answered.references, answered.messageId] } : {}),
      attachments: (request.files as Express.Multer.File[]).filter((file) => file.size).map((file) => ({ filename: file.originalname, content: file.buffer })),
    })
    .then(() => response.redirect(303, `/?to=${encodeURIComponent(to!.toLowerCase())}`), next)
})
app.get('/', (request, response) => {
  response.type('html').send(mailPage(mailbox, request.query.to as string | undefined))
})

smtp.listen(Number(process.env.EVRIX_SMTP_PORT ?? 0), '127.0.0.1', () => {
  const web = app.listen(Number(process.env.EVRIX_MAIL_PORT ?? 0), '127.0.0.1', () => {
    const smtpPort = (smtp.server.address() as AddressInfo).port
    process.stdout.write(`listening smtp://127.0.0.1:${smtpPort} http://127.0.0.1:${(web.address() as AddressInfo).port}\n`)
  })
  // Ended by hand, with its terminal, or with whoever started it.
  for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP', 'disconnect'] as const)
    process.once(signal as 'SIGTERM', () => {
      relay?.stop()
      web.close()
      web.closeAllConnections()
      smtp.close(() => process.exit(0))
    })
})
