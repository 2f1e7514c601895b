import type { Mails } from '#server/kit'
import { tellOfTarget } from './tellOfTarget'

/** What those responsible are written of promises. */
export const orderMails = { 'order.close_to': tellOfTarget, 'order.past': tellOfTarget } satisfies Mails
