import type { World } from './world'

const OPEN = 'state=draft,to_approve,ready,dispatched,on_job,on_hold'

/** A few lists people came back to often enough to name. */
export function makeViews(world: World): void {
  const account = (name: string) => world.rows.accounts.find((row) => row.email.startsWith(name))!.id!
  const place = (code: string) => world.rows.places.find((row) => row.code === code)!.id!
  const desk = world.rows.teams.find((team) => team.name === 'Help desk')!.id!
  world.add('savedViews', {
    ownerId: account('maren.quill'),
    name: 'Lantern House before opening',
    kind: 'orders',
    sharedWith: 'team',
    teamId: desk,
    address: `${OPEN}&place=${place('LAN')}&sort=priority`,
  })
  world.add('savedViews', {
    ownerId: account('maren.quill'),
    name: 'Came by mail this week',
    kind: 'requests',
    sharedWith: 'nobody',
    teamId: null,
    address: 'channel=email&received=-7d..&sort=-received',
  })
  world.add('savedViews', {
    ownerId: account('tobias.achterberg'),
    name: 'Estates pays, by trade',
    kind: 'orders',
    sharedWith: 'all',
    teamId: null,
    address: `${OPEN}&payer=${world.rows.payers.find((payer) => payer.code === '5800')!.id!}&group=trade`,
  })
}
