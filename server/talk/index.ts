import type { Route } from '#server/kit'
import { addSaidPhoto, addSentSaidPhoto, addTalkPhoto, readTalk, sayOnJob, sayOnOrder } from './routes'

export { talkMails } from './mails'
export { pictureSaid, sayOn } from './say'
export const routes: Route[] = [readTalk, sayOnOrder, addTalkPhoto, sayOnJob, addSaidPhoto, addSentSaidPhoto]
