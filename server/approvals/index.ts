import type { Route } from '#server/kit'
import decideByLink from './decideByLink'
import handOver from './handOver'
import readApproval from './readApproval'
import readApprovalPicture from './readApprovalPicture'
import readUnable from './readUnable'
export * from './mails'
export { openLink } from './openLink'

export const routes: Route[] = [readApproval, decideByLink, readApprovalPicture, readUnable, handOver]
