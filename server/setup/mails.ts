import type { Mails } from '#server/kit'
import { noticeOfUnable } from './noticeOfUnable'

/** What administrators are written. */
export const setupMails = { 'setup.account': noticeOfUnable } satisfies Mails
