import { event } from '#core/kit'

/** What becomes of mail by somebody's hand. */
export const MAIL_EVENTS = {
  'mail.dismiss': event<{ sender: string | null; subject: string | null }>()({ says: 'dismissed a mail', told: null, writes: false }),
}
