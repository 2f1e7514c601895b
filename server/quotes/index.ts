import type { Route } from '#server/kit'
import { namePassPrice } from './byPass'
import { nameNone, namePrice, readQuotePage } from './page'
import { askQuotes, readQuotes, takeQuote, withdrawQuote } from './quotes'

export { quoteMails } from './mails'
export { quoteWorks } from './watch'
export const routes: Route[] = [readQuotes, askQuotes, withdrawQuote, takeQuote, readQuotePage, namePrice, nameNone, namePassPrice]
