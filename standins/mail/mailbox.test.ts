import { mkdtempSync, readFileSync, rmSync, appendFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { Mailbox } from './mailbox'
import { mailPage } from './page'

let folder: string
beforeEach(() => (folder = mkdtempSync(path.join(tmpdir(), 'mailbox-'))))
afterEach(() => rmSync(folder, { recursive: true, force: true }))
const mail = (to: string[], subject = 'R-1 Tap drips', text = 'Where it stands:\nhttp://127.0.0.1:4600/t/abc?x=1&y=2') => ({
  at: '2026-11-23T10:30:00.000Z',
  from: 'Help desk <desk@skerry.example>',
  to,
  subject,
  text,
  messageId: '<1@x.example>',
  references: [],
  replyTo: null,
  files: [],
})

test('mails are kept over a restart, newest first, and found by who received them', () => {
  const first = new Mailbox(folder)
  first.keep(mail(['a@x.example'], 'one'))
  first.keep(mail(['a@x.example', 'b@x.example'], 'two'))
  const again = new Mailbox(folder)
  expect(again.list().map((one) => [one.id, one.subject])).toEqual([
    [2, 'two'],
    [1, 'one'],
  ])
  expect(again.list('B@X.example').map((one) => one.subject)).toEqual(['two'])
  expect(again.people()).toEqual([
    { address: 'a@x.example', count: 2 },
    { address: 'b@x.example', count: 1 },
  ])
  appendFileSync(path.join(folder, 'received-mail.jsonl'), '\n')
  expect(new Mailbox(folder).list()).toHaveLength(2)
  expect(readFileSync(path.join(folder, 'received-mail.jsonl'), 'utf8').trim().split('\n')).toHaveLength(2)
})

test('the page shows one person’s mails with links to follow, and never runs what a mail says', () => {
  const box = new Mailbox(folder)
  expect(mailPage(box, undefined)).toContain('Nothing has been received yet')
  box.keep(mail(['a@x.example'], '<script>alert(1)</script>', '<img src=x onerror=alert(2)> http://127.0.0.1/t/abc'))
  box.keep(mail(['b@x.example'], 'For somebody else'))
  const page = mailPage(box, 'a@x.example')
  expect(page).not.toMatch(/<script|<img/)
  expect(page).toContain('&#60;script&#62;alert(1)')
  expect(page).toContain('<a href="http://127.0.0.1/t/abc">')
  expect(page).not.toContain('For somebody else')
  expect(page).toContain('aria-current="true">a@x.example')
})
