/** What a notice on the Counter is about. */
export const BULLETIN_KINDS = ['closure', 'works', 'event'] as const
export type BulletinKind = (typeof BULLETIN_KINDS)[number]
