import type { BulletinKind } from '#core/help'

/** Kinds of notice as people read them. */
export const BULLETIN_KINDS: Record<BulletinKind, string> = { closure: 'Closed', works: 'Works', event: 'Event' }
