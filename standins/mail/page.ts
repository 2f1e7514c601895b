import type { Mailbox, ReceivedMail } from './mailbox'

const escape = (text: string) => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`)

/** Links in a mail can be followed, as a mail program would let you. */
const withLinks = (text: string) => escape(text).replace(/https?:\/\/[^\s&]+/g, (url) => `<a href="${url}">${url}</a>`)

/** The page that shows what each person received. */
export function mailPage(mailbox: Mailbox, address: string | undefined): string {
  const people = mailbox
    .people()
    .map(
      ({ address: person, count }) =>
        `<li><a href="?to=${encodeURIComponent(person)}"${person === address ? ' aria-current="true"' : ''}>${escape(person)}</a> <span>${count}</span></li>`,
    )
  const mails = mailbox.list(address).slice(0, 100).map(article)
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Received mail</title><style>${STYLE}</style></head>
<body><header><h1>Received mail</h1><p>A stand-in mail server: nothing leaves this machine.</p></header>
<nav aria-label="People"><ul><li><a href="/"${address ? '' : ' aria-current="true"'}>Everybody</a></li>${people.join('')}</ul></nav>
<main>${mails.join('') || '<p>Nothing has been received yet. Report something at the Counter with a mail address, and the acknowledgement arrives here.</p>'}</main></body></html>`
}

function article(mail: ReceivedMail): string {
  return `<article><h2>${escape(mail.subject)}</h2><p class="meta">to ${escape(mail.to.join(', '))}, from ${escape(mail.from)}, <time>${escape(mail.at.replace('T', ' ').slice(0, 16))}</time></p><pre>${withLinks(mail.text)}</pre></article>`
}

const STYLE = `body{margin:0;font:14px/1.45 system-ui,sans-serif;background:#F6F3EC;color:#17262B;display:grid;grid-template:auto 1fr/260px 1fr;min-height:100vh}
header{grid-column:1/-1;padding:16px 24px;background:#0F3A43;color:#fff}h1{margin:0;font-size:20px}header p{margin:4px 0 0}
nav{padding:16px;border-right:1px solid #D9D2C3}ul{list-style:none;margin:0;padding:0}li{padding:4px 0}a{color:#1F7A7A}a[aria-current]{font-weight:700}
main{padding:16px 24px}article{background:#FFFDF8;border:1px solid #D9D2C3;border-radius:6px;padding:12px 16px;margin-bottom:12px}h2{font-size:16px;margin:0}.meta{color:#55656A;margin:4px 0}pre{white-space:pre-wrap;font:inherit;margin:8px 0 0}`
