import type { Route } from '#server/kit'
import decideByLink from './decideByLink'
import readApproval from './readApproval'
import readApprovalPicture from './readApprovalPicture'
export * from './mails'

export const routes: Route[] = [readApproval, decideByLink, readApprovalPicture]
