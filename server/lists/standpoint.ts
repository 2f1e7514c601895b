/** From where a list is looked at: what `me`, `mine` and `today` mean, and which sites may be seen. Plain, so that a thread can be given it. */
export interface Standpoint {
  accountId: number
  teamId: number | null
  siteIds: number[] | null
  zone: string
  now: Date
}
