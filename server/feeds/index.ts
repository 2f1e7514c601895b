import type { Route } from '#server/kit'
import { listFeeds, makeFeed, makeMyFeed, readFeed, readMyFeed, revokeFeed, revokeMyFeed } from './feeds'

export const routes: Route[] = [listFeeds, makeFeed, revokeFeed, readMyFeed, makeMyFeed, revokeMyFeed, readFeed]
