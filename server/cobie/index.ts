import type { Route } from '#server/kit'
import giveCobie from './giveCobie'
import listCobieBuildings from './listCobieBuildings'
import takeCobie from './takeCobie'

export const routes: Route[] = [listCobieBuildings, giveCobie, takeCobie]
