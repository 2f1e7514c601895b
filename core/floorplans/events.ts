import { counted, event } from '#core/kit'

export const FLOORPLAN_EVENTS = {
  'floorplan.take': event<{ file: string; drawn: number; made: number }>()({
    says: 'took in a floor plan:',
    about: ({ file, drawn, made }) =>
      [file, counted(drawn ?? 0, 'place or asset', 'places and assets') + ' drawn', made ? `${counted(made, 'space')} made` : ''].filter(Boolean).join(', '),
    told: null,
    writes: false,
  }),
  'floorplan.picture': event<{ what: 'laid' | 'moved' | 'taken away'; file: string }>()({
    says: 'changed what lies under the floor plan:',
    about: ({ what, file }) => [file, what].filter(Boolean).join(' '),
    told: null,
    writes: false,
  }),
  'floorplan.pin': event<{ called: string; off: boolean }>()({
    says: 'moved on the floor plan:',
    about: ({ called, off }) => `${called ?? ''}${off ? ', taken off it' : ''}`,
    told: null,
    writes: false,
  }),
  'floorplan.erase': event<{ called: string }>()({ says: 'erased from the floor plan:', about: ({ called }) => called ?? '', told: null, writes: false }),
}
