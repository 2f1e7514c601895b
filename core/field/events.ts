import { event } from '#core/kit'
import type { PhotoStage } from './stages'

const RESULTS: Record<string, string> = { done: 'done', return: 'needs a return visit', part: 'waiting for a part', handed_over: 'handed over' }

/** What can happen on a job. */
export const FIELD_EVENTS = {
  'field.stint': event<{ stint: string; tells: 'way' | 'work' }>()({
    says: 'set the clock to',
    about: ({ stint }) => stint ?? '',
    told: ({ tells }) => (tells === 'way' ? 'Somebody is on the way.' : tells === 'work' ? 'Somebody started on it.' : ''),
    writes: false,
  }),
  'field.stop': event<{ stint: string; minutes: number; stoppedAt: string }>()({
    says: 'stopped the clock',
    about: ({ minutes, stint }) => `after ${minutes} min ${stint}`,
    told: null,
    writes: false,
  }),
  'field.correct': event<{ stint: string; minutes: number; fromStart: string; fromEnd: string; start: string; end: string }>()({
    says: 'put their time right:',
    about: ({ stint, start, end, minutes }, words) => (start && end ? `${stint}, ${words.time(start)} to ${words.time(end)}, ${minutes} min` : ''),
    told: null,
    writes: false,
  }),
  'field.part': event<{ part: string; quantity: string; unit: string }>()({
    says: 'used',
    about: ({ part, quantity, unit }) => `${quantity} ${unit} ${part}`,
    told: null,
    writes: false,
  }),
  'field.partBack': event<{ part: string; quantity: string; unit: string; store: string }>()({
    says: 'brought back',
    about: ({ part, quantity, unit, store }) => `${quantity ?? ''} ${unit ?? ''} ${part ?? ''}${store ? ` to ${store}` : ''}`,
    told: null,
    writes: false,
  }),
  'field.note': event()({ says: 'noted', told: null, writes: false, talk: true }),
  'field.photo': event<{ stage: PhotoStage }>()({
    says: 'added a photo',
    about: ({ stage }) => (stage ? `of ${stage}` : ''),
    told: null,
    writes: false,
  }),
  'field.sign': event<{ name: string }>()({ says: 'had it signed by', about: ({ name }) => name ?? '', told: null, writes: false }),
  'field.unsent': event<{ what: string; why: string }>()({
    says: 'recorded on the phone what could not be taken:',
    about: ({ what, why }) => [what, why].filter(Boolean).join(' · '),
    told: null,
    writes: true,
  }),
  'lone.set': event<{ everyMinutes: number | null }>()({
    says: 'said of who does it:',
    about: ({ everyMinutes }) => (everyMinutes ? `works alone, checks in every ${everyMinutes} min` : 'does not check in'),
    told: null,
    writes: false,
  }),
  'lone.checkIn': event<{ wasTold: boolean }>()({ says: 'is all right, working alone', told: null, writes: true }),
  'lone.there': event<{ name: string; phone: string | null }>()({
    says: 'said who is there:',
    about: ({ name, phone }) => [name, phone].filter(Boolean).join(', '),
    told: null,
    writes: false,
  }),
  'lone.overdue': event<{ name: string; phone: string | null; dueAt: string }>()({
    says: 'told of an overdue check-in:',
    about: ({ name, phone, dueAt }, words) => [name, phone, dueAt && `who was to check in by ${words.time(dueAt)}`].filter(Boolean).join(', '),
    told: null,
    writes: true,
    byClock: true,
  }),
  'field.hazards': event()({ says: 'read the hazards', told: null, writes: false }),
  'field.permit': event<{ permit: string; number: string; start: string; end: string }>()({
    says: 'holds a permit:',
    about: ({ permit, number, start, end }, words) => (start && end ? `${permit} ${number}, ${words.time(start)} to ${words.time(end)}` : ''),
    told: null,
    writes: false,
  }),
  'field.leave': event<{ result: string; returnAt: string; handTo: string }>()({
    says: 'left the job',
    about: ({ result, returnAt, handTo }, words) =>
      [RESULTS[result ?? ''], handTo && `to ${handTo}`, returnAt && `best ${words.time(returnAt)}`].filter(Boolean).join(', '),
    told: null,
    writes: false,
  }),
}
