/** Who or what suffers while nothing is done, from least to most. */
export const CONSEQUENCES = ['nobody', 'one_person', 'room', 'building', 'safety'] as const
export type Consequence = (typeof CONSEQUENCES)[number]

/** How long it can wait, from longest to shortest. */
export const URGENCIES = ['can_wait', 'this_week', 'today', 'now'] as const
export type Urgency = (typeof URGENCIES)[number]

export const PRIORITIES = ['emergency', 'urgent', 'routine', 'deferred'] as const
export type Priority = (typeof PRIORITIES)[number]

export const PRIORITY_NAMES: Record<Priority, string> = {
  emergency: 'Emergency',
  urgent: 'Urgent',
  routine: 'Routine',
  deferred: 'Deferred',
}

export const CONSEQUENCE_NAMES: Record<Consequence, string> = {
  nobody: 'Nobody affected',
  one_person: 'One person',
  room: 'A room',
  building: 'A building',
  safety: 'Safety, animals or research at risk',
}

export const URGENCY_NAMES: Record<Urgency, string> = {
  can_wait: 'Can wait',
  this_week: 'This week',
  today: 'Today',
  now: 'Now',
}

export type PriorityMatrix = Record<Consequence, Record<Urgency, Priority>>

/** The matrix a new site starts with; Setup holds the one in force. */
export const DEFAULT_MATRIX: PriorityMatrix = {
  nobody: { can_wait: 'deferred', this_week: 'deferred', today: 'routine', now: 'routine' },
  one_person: { can_wait: 'deferred', this_week: 'routine', today: 'routine', now: 'urgent' },
  room: { can_wait: 'routine', this_week: 'routine', today: 'urgent', now: 'urgent' },
  building: { can_wait: 'routine', this_week: 'urgent', today: 'urgent', now: 'emergency' },
  safety: { can_wait: 'urgent', this_week: 'urgent', today: 'emergency', now: 'emergency' },
}

export interface PriorityVerdict {
  priority: Priority
  sentence: string
}

const SUFFERS: Record<Consequence, string> = {
  nobody: 'nobody is affected',
  one_person: 'one person is affected',
  room: 'a room is affected',
  building: 'a building is affected',
  safety: 'safety, animals or research are at risk',
}

const WAITS: Record<Urgency, string> = {
  can_wait: 'it can wait',
  this_week: 'it has to be done this week',
  today: 'it has to be done today',
  now: 'it cannot wait',
}

/**
 * The priority a matrix gives, with the sentence that explains it. What the reporter wished for is
 * not an argument on purpose: it is shown, never used.
 */
export function priorityOf(consequence: Consequence, urgency: Urgency, matrix: PriorityMatrix = DEFAULT_MATRIX): PriorityVerdict {
  const priority = matrix[consequence][urgency]
  return {
    priority,
    sentence: `${PRIORITY_NAMES[priority]}, because ${SUFFERS[consequence]} and ${WAITS[urgency]}.`,
  }
}
