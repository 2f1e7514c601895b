import type { LocationQueryValue } from 'vue-router'
import { findScanned } from '#contract/portraits'
import { addressOf, call } from '#web/kit'

type Said = LocationQueryValue | LocationQueryValue[] | undefined
const text = (said: Said) => (typeof said === 'string' && said ? said : undefined)

/** Where the Portrait of what a label stands for is; null where there is none to see, so that the Counter is opened. */
export const portraitOf = (site: string, place: Said, asset: Said): Promise<string | null> =>
  call(findScanned, { site, place: text(place), asset: text(asset) }).then(addressOf, () => null)
