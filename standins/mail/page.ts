import type { Mailbox, ReceivedMail } from './mailbox'

const escape = (text: string) => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`)

/** Links in a mail can be followed, as a mail program would let you. */
const withLinks = (text: string) => escape(text).replace(/https?:\/\/[^\s&]+/g, (url) => `<a href="${url}">${url}</a>`)

const page = (title: string, body: string) =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${title}</title><style>${STYLE}</style></head>
<body><header><h1>${title}</h1><p>A stand-in mail server: nothing leaves this machine. <a href="/write">Write a mail</a></p></header>${body}</body></html>`

/** The page that shows what each person received, with a way to answer. */
export function mailPage(mailbox: Mailbox, address: string | undefined): string {
  const people = mailbox
    .people()
    .map(
      ({ address: person, count }) =>
        `<li><a href="?to=${encodeURIComponent(person)}"${person === address ? ' aria-current="true"' : ''}>${escape(person)}</a> <span>${count}</span></li>`,
    )
  const mails = mailbox.list(address).slice(0, 100).map(article)
  return page(
    'Received mail',
    `<nav aria-label="People"><ul><li><a href="/"${address ? '' : ' aria-current="true"'}>Everybody</a></li>${people.join('')}</ul></nav>
<main>${mails.join('') || '<p>Nothing has been received yet. Report something at the Counter with a mail address, and the acknowledgement arrives here.</p>'}</main>`,
  )
}

function article(mail: ReceivedMail): string {
  const files = mail.files.map((file) => `<li>${escape(file.name)}, ${Math.ceil(file.bytes / 1024)} kB</li>`).join('')
  return `<article><h2>${escape(mail.subject)}</h2><p class="meta">to ${escape(mail.to.join(', '))}, from ${escape(mail.from)}, <time>${escape(mail.at.replace('T', ' ').slice(0, 16))}</time></p><pre>${withLinks(mail.text)}</pre>${files ? `<ul class="files">${files}</ul>` : ''}<p><a class="push" href="/write?reply=${mail.id}">Answer</a></p></article>`
}

/** A form that sends by real SMTP: a new mail, or the answer to one that was received. */
export function writePage(answered: ReceivedMail | undefined, from = ''): string {
  const writer = answered?.to[0] ?? from
  const to = answered ? (answered.replyTo ?? /<([^>]+)>/.exec(answered.from)?.[1] ?? answered.from) : ''
  const subject = answered ? `Re: ${answered.subject.replace(/^(re:\s*)+/i, '')}` : ''
  const quoted = answered
    ? `\n\nOn ${answered.at.slice(0, 10)} ${answered.from.replace(/[<>]/g, '')} wrote:\n${answered.text
        .trim()
        .split('\n')
        .map((line) => `> ${line}`)
        .join('\n')}`
    : ''
  const field = (name: string, label: string, value: string, type = 'text') =>
    `<p><label for="${name}">${label}</label><input id="${name}" name="${name}" type="${type}" value="${escape(value)}" required></p>`
  return page(
    answered ? 'Answer a mail' : 'Write a mail',
    `<nav aria-label="Back"><a href="/">Received mail</a></nav><main><form method="post" action="/write" enctype="multipart/form-data"><input type="hidden" name="reply" value="${answered?.id ?? ''}">
${field('from', 'From', writer, 'email')}${field('to', 'To', to, 'email')}${field('subject', 'Subject', subject)}
<p><label for="text">Text</label><textarea id="text" name="text" rows="12">${escape(quoted)}</textarea></p>
<p><label for="files">Files</label><input id="files" name="files" type="file" multiple></p><p><button>Send by SMTP</button></p></form></main>`,
  )
}

const STYLE = `body{margin:0;font:14px/1.45 system-ui,sans-serif;background:#F6F3EC;color:#17262B;display:grid;grid-template:auto 1fr/260px 1fr;min-height:100vh}
header{grid-column:1/-1;padding:16px 24px;background:#0F3A43;color:#fff}header a{color:#CFE3E1}h1{margin:0;font-size:20px}header p{margin:4px 0 0}
nav{padding:16px;border-right:1px solid #D9D2C3}ul{list-style:none;margin:0;padding:0}li{padding:4px 0}a{color:#1F7A7A}a[aria-current]{font-weight:700}
main{padding:16px 24px}article{background:#FFFDF8;border:1px solid #D9D2C3;border-radius:6px;padding:12px 16px;margin-bottom:12px}h2{font-size:16px;margin:0}.meta{color:#55656A;margin:4px 0}pre{white-space:pre-wrap;font:inherit;margin:8px 0 0}
form{max-width:720px}label{display:block;color:#55656A}input,textarea{width:100%;box-sizing:border-box;font:inherit;padding:8px;border:1px solid #8A8270;border-radius:6px;background:#FFFDF8}button,.push{display:inline-block;font:inherit;padding:8px 14px;border:1px solid #0F3A43;border-radius:6px;background:#0F3A43;color:#fff;text-decoration:none;cursor:pointer}.push{background:transparent;color:#0F3A43;padding:4px 10px}
@media(max-width:700px){body{display:block}nav{border:0}}`
