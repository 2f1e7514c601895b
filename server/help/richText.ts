import sanitizeHtml from 'sanitize-html'

/** Rich text with nothing in it that runs, loads from elsewhere or changes the page around it. */
export function cleanRichText(html: string): string {
  return sanitizeHtml(html, {
    allowedTags: ['p', 'br', 'strong', 'b', 'em', 'i', 'u', 'ul', 'ol', 'li', 'h2', 'h3', 'a', 'img', 'blockquote'],
    allowedAttributes: { a: ['href'], img: ['src', 'alt'] },
    allowedSchemes: ['http', 'https', 'mailto', 'tel'],
    allowedSchemesAppliedToAttributes: ['href'],
    // Pictures come from our own articles only: an address elsewhere would tell it who reads.
    exclusiveFilter: (frame) => frame.tag === 'img' && !/^\/api\/help\/files\/\d+$/.test(frame.attribs.src ?? ''),
    transformTags: { a: sanitizeHtml.simpleTransform('a', { rel: 'noopener noreferrer' }) },
  })
}

/** Its words alone, for search and for what is too narrow for more. */
export const wordsOf = (html: string) => sanitizeHtml(html, { allowedTags: [], allowedAttributes: {} }).replace(/\s+/g, ' ').trim()
