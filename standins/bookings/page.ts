import { occurrencesIn } from './occurrences'
import type { CalendarStore } from './store'

const escape = (text: string) => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`)
const written = (at: Date) => at.toISOString().slice(0, 16).replace('T', ' ')
const AHEAD_DAYS = 60

/** The page that shows who has which room, with a way to book one and to give one up. Times are UTC. */
export function bookingsPage(store: CalendarStore, room: string | undefined, now: Date, said = ''): string {
  const rooms = store.names()
  const shown = room && store.has(room) ? room : rooms[0]
  const until = new Date(now.getTime() + AHEAD_DAYS * 86_400_000)
  const rows = shown
    ? store
        .objects(shown)
        .flatMap(({ file, data }) => occurrencesIn(data, now, until).map((one) => ({ file, ...one })))
        .sort((a, b) => a.start.getTime() - b.start.getTime())
    : []
  const list = rooms.map(
    (name) =>
      `<li><a href="?room=${encodeURIComponent(name)}"${name === shown ? ' aria-current="true"' : ''}>${escape(name)}</a> <span>${escape(store.titleOf(name))}</span></li>`,
  )
  const line = ({ file, start, end, summary, organizer }: (typeof rows)[number]) =>
    `<tr><td>${written(start)}</td><td>${written(end)}</td><td>${escape(summary ?? '')}</td><td>${escape(organizer.name ?? organizer.email ?? '')}</td>
<td><form method="post" action="/cancel"><input type="hidden" name="room" value="${escape(shown!)}"><input type="hidden" name="file" value="${escape(file)}"><button>Give it up</button></form></td></tr>`
  const field = (name: string, label: string, type: string, needed = true) =>
    `<p><label for="${name}">${label}</label><input id="${name}" name="${name}" type="${type}"${needed ? ' required' : ''}></p>`
  const body = shown
    ? `<h2>${escape(shown)} ${escape(store.titleOf(shown))}</h2>${said ? `<p role="status"><strong>${escape(said)}</strong></p>` : ''}
${rows.length ? `<table><thead><tr><th>From</th><th>Until</th><th>What</th><th>Who</th><th></th></tr></thead><tbody>${rows.map(line).join('')}</tbody></table>` : '<p>Nothing is booked in it.</p>'}
<h2>Book it</h2><form method="post" action="/book"><input type="hidden" name="room" value="${escape(shown)}">
${field('what', 'What', 'text')}${field('who', 'Who', 'text', false)}${field('email', 'Mail address', 'email', false)}${field('from', 'From (UTC)', 'datetime-local')}${field('until', 'Until (UTC)', 'datetime-local')}
<p><button>Book the room</button></p></form>`
    : '<p>There are no rooms to book.</p>'
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Room bookings</title><style>${STYLE}</style></head>
<body><header><h1>Room bookings</h1><p>A stand-in for a bookings system; programs reach it by CalDAV under /calendars/.</p></header><nav aria-label="Rooms"><ul>${list.join('')}</ul></nav><main>${body}</main></body></html>`
}

const STYLE = `body{margin:0;font:14px/1.45 system-ui,sans-serif;background:#F6F3EC;color:#17262B;display:grid;grid-template:auto 1fr/260px 1fr;min-height:100vh}
header{grid-column:1/-1;padding:16px 24px;background:#0F3A43;color:#fff}h1{margin:0;font-size:20px}header p{margin:4px 0 0}
nav{padding:16px;border-right:1px solid #D9D2C3}ul{list-style:none;margin:0;padding:0}li{padding:4px 0}a{color:#1F7A7A}a[aria-current]{font-weight:700}
main{padding:16px 24px}h2{font-size:16px}table{border-collapse:collapse}td,th{text-align:left;padding:4px 14px 4px 0;border-bottom:1px solid #D9D2C3}
main>form{max-width:420px}label{display:block;color:#55656A}input{width:100%;box-sizing:border-box;font:inherit;padding:8px;border:1px solid #8A8270;border-radius:6px;background:#FFFDF8}button{font:inherit;padding:6px 12px;border:1px solid #0F3A43;border-radius:6px;background:#0F3A43;color:#fff;cursor:pointer}td button{background:transparent;color:#0F3A43}
@media(max-width:700px){body{display:block}nav{border:0}}`
