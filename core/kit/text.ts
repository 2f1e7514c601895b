/** Lower case, accents folded, letters of every script kept, punctuation to single spaces: what search compares. */
export function foldText(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
}

/** The words of a search, folded, at most eight. */
export function searchWords(text: string): string[] {
  return foldText(text).split(' ').filter(Boolean).slice(0, 8)
}

/** "one line", "2 lines": a count with its noun in the right number. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${count} ${count === 1 ? one : many}`
}

/**
 * Text as it is kept: without what no format can carry (controls but tab and line end, noncharacters such as
 * U+FFFE, lone surrogates) and without marks that turn the direction of what stands beside them. Line ends are \n.
 * Sources: XML 1.0 section 2.2 (allowed characters); Unicode, section 23.7 (noncharacters) and UAX #9 (overrides).
 */
export function cleanText(text: string): string {
  return (
    text
      .replace(/\r\n?/g, '\n')
      // eslint-disable-next-line no-control-regex -- these are what is looked for
      .replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F-\u009F]/g, '')
      .replace(/[\u202A-\u202E\u2066-\u2069]/g, '')
      .replace(/[\uFDD0-\uFDEF]|[\uFFFE\uFFFF]/g, '')
      .replace(/[\uD83F\uD87F\uD8BF\uD8FF\uD93F\uD97F\uD9BF\uD9FF\uDA3F\uDA7F\uDABF\uDAFF\uDB3F\uDB7F\uDBBF\uDBFF][\uDFFE\uDFFF]/g, '')
      .replace(/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g, '')
  )
}

/** Everything that is text in what came in, cleaned; keys and all else stay. */
export function cleanDeep<T>(value: T): T {
  if (typeof value === 'string') return cleanText(value) as T
  if (Array.isArray(value)) return value.map(cleanDeep) as T
  if (value !== null && typeof value === 'object' && Object.getPrototypeOf(value) === Object.prototype)
    return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, cleanDeep(one as unknown)])) as T
  return value
}

const LINK = /(?:https?:\/\/|www\.)\S*|\b[\p{L}\p{N}-]+(?:\.[\p{L}\p{N}-]+)*\.(?:com|net|org|info|biz|io|ru|cn|top|xyz|shop|site|online|link|click)\b\S*/giu

/** Whether a name is one: a single line without a link. */
export const isPlainName = (text: string): boolean => !/[\r\n\u2028\u2029]/.test(text) && text.search(LINK) === -1

/** A name as it goes out: one line, no links. */
export const plainName = (text: string): string => withoutLinks(text.replace(/[\s\u2028\u2029]+/g, ' ')).trim()

/** Text that somebody else wrote, as it goes out under our name: links are taken out of it. */
export const withoutLinks = (text: string): string => text.replace(LINK, '(link)')

/** A word in which letters and digits meet, with a blank between: "gan204" is "gan 204" too. */
export const splitCode = (word: string): string => word.replace(/(\p{L})(?=\p{N})|(\p{N})(?=\p{L})/gu, '$1$2 ')
