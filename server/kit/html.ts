const escape = (text: string) => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`)

/** The same words as HTML, for mail programs that show it better: paragraphs, line ends and links, nothing else. */
export function htmlOf(text: string): string {
  const paragraphs = text
    .split(/\n{2,}/)
    .map((one) => escape(one).replace(/\n/g, '<br>'))
    .map((one) => `<p style="margin:0 0 12px">${one.replace(/https?:\/\/[^\s<]+/g, (url) => `<a href="${url}" style="color:#1F7A7A">${url}</a>`)}</p>`)
  return `<!doctype html><html lang="en"><body style="font:15px/1.5 sans-serif;color:#17262B">${paragraphs.join('')}</body></html>`
}
