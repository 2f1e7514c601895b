import type { Board, BoardVisit } from '#contract/board'
import type { Conflict } from '#core/board'

export interface Surprise {
  number: string
  sentence: string
}

/**
 * What came in between since it was planned, and what a repair of the plan is offered for: an emergency nobody is planned
 * for, a visit that cannot be made as it stands (somebody is away, or somewhere else then), and work that takes so long that
 * the next visit cannot be reached in time. What is worst comes first.
 */
export function surprisesOn(board: Board, judge: (visit: BoardVisit, technicianId: number) => readonly Conflict[]): Surprise[] {
  const emergencies = board.waiting
    .filter(({ priority, state }) => priority === 'emergency' && state === 'ready')
    .map(({ number, summary }) => ({ number, sentence: `${number} is an emergency, and nobody is planned for it: ${summary}.` }))
  const visits = board.people.flatMap((person) => {
    const running = person.visits.find(({ state, until }) => state === 'on_site' && until >= board.now)
    return person.visits.flatMap((visit) => {
      if (visit.state !== 'planned' || visit.until <= board.now) return []
      const against = judge(visit, person.id)
      const away = against.find(({ code }) => code === 'away')
      if (away) return [{ number: visit.number, sentence: `${visit.number} cannot be made as it is planned: ${away.sentence}` }]
      // Past its planned end, what runs reaches up to now and no further.
      const late =
        running &&
        running.until === board.now &&
        against.some(({ code, sentence }) => (code === 'overlap' || code === 'travel') && sentence.includes(running.number))
      if (late)
        return [{ number: visit.number, sentence: `${running.number} takes longer than planned: ${person.name} does not reach ${visit.number} in time.` }]
      const overlap = against.find(({ code }) => code === 'overlap')
      return overlap ? [{ number: visit.number, sentence: `${visit.number} cannot be made as it is planned: ${overlap.sentence}` }] : []
    })
  })
  return [...emergencies, ...visits]
}
