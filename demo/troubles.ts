import type { Consequence, Urgency } from '#core/requests'

/** Something that goes wrong, as people report it and as it is closed. */
export interface Trouble {
  category: string
  trade: string
  where: RegExp
  asset?: string
  summary: string
  description: string
  symptom: string
  cause: string
  fix: string
  parts?: string
  vendor?: string
  minutes: [number, number]
  consequence: Consequence
  urgency: Urgency
  weight: number
  /** Months in which it comes more often, 1 to 12. */
  season?: number[]
}

const t = (trouble: Trouble) => trouble
const WINTER = [11, 12, 1, 2, 3]
const SUMMER = [6, 7, 8]

export const TROUBLES: Trouble[] = [
  t({ category: 'light', trade: 'electrical', where: /./, summary: 'Ceiling light flickers', description: 'The second ceiling light from the door flickers, worse in the morning. I have seen it myself since Monday.', symptom: 'Works now and then', cause: 'Wear', fix: 'Replaced', parts: 'EL-101', minutes: [20, 50], consequence: 'one_person', urgency: 'this_week', weight: 9 }),
  t({ category: 'light', trade: 'electrical', where: /Office|aborator|Studio/, summary: 'Socket by the desk is dead', description: 'The left double socket under the window has no power. The others in the room work.', symptom: 'No power', cause: 'Electrical fault', fix: 'Replaced', parts: 'EL-103', minutes: [30, 70], consequence: 'one_person', urgency: 'this_week', weight: 6 }),
  t({ category: 'heat', trade: 'hvac', where: /Office|Studio|Seminar|Library|Meeting|Classroom/, asset: 'Fan coil', summary: 'Room does not get warm', description: 'The heater under the window blows cold air. 16 degrees at nine in the morning.', symptom: 'Too cold', cause: 'Wrong setting', fix: 'Adjusted', minutes: [30, 90], consequence: 'room', urgency: 'this_week', weight: 10, season: WINTER }),
  t({ category: 'heat', trade: 'hvac', where: /Office|Seminar|aborator|Auditorium|Gallery/, asset: 'Fan coil', summary: 'Room is far too warm', description: 'Cooling does not come on, 28 degrees since yesterday noon. The fan is running.', symptom: 'Too warm', cause: 'Blockage', fix: 'Cleaned', parts: 'HV-202', minutes: [40, 110], consequence: 'room', urgency: 'this_week', weight: 7, season: SUMMER }),
  t({ category: 'heat', trade: 'hvac', where: /aborator/, asset: 'Fume cupboard', summary: 'Fume cupboard alarm sounds', description: 'Low-flow alarm on the fume cupboard nearest the door. We have stopped using it.', symptom: 'Alarm', cause: 'Wear', fix: 'Replaced', parts: 'HV-201', minutes: [50, 120], consequence: 'room', urgency: 'today', weight: 4 }),
  t({ category: 'cold', trade: 'hvac', where: /Cold room/, asset: 'Cold room plant', summary: 'Cold room is at 9 degrees', description: 'Display shows 9.2, it should be 4. Samples are still inside. Noticed at the morning check.', symptom: 'Too warm', cause: 'Failed part', fix: 'Repaired', parts: 'HV-203', minutes: [60, 180], consequence: 'safety', urgency: 'today', weight: 3 }),
  t({ category: 'cold', trade: 'hvac', where: /Freezer bank/, asset: 'Freezer −80 °C', summary: 'Freezer alarm, −61 and rising', description: 'The third freezer from the left shows −61 and the alarm is on. Coral tissue inside, we are moving it out.', symptom: 'Alarm', cause: 'Failed part', fix: 'Replaced', parts: 'HV-204', minutes: [60, 150], consequence: 'safety', urgency: 'now', weight: 2 }),
  t({ category: 'water', trade: 'plumbing', where: /Washroom|Studio|Kitchenette|Café/, summary: 'Tap drips', description: 'The right tap at the basin drips about once a second, even closed hard.', symptom: 'Leaking', cause: 'Wear', fix: 'Replaced', parts: 'PL-301', minutes: [20, 45], consequence: 'nobody', urgency: 'this_week', weight: 8 }),
  t({ category: 'water', trade: 'plumbing', where: /Washroom|Studio/, summary: 'Toilet keeps running', description: 'Water runs into the bowl all the time after flushing. Second cubicle.', symptom: 'Leaking', cause: 'Wear', fix: 'Replaced', parts: 'PL-303', minutes: [25, 55], consequence: 'one_person', urgency: 'this_week', weight: 7 }),
  t({ category: 'water', trade: 'plumbing', where: /Washroom|Studio|Café kitchen|Feed kitchen/, summary: 'Drain is blocked', description: 'The floor drain does not take water any more and it smells.', symptom: 'Blocked', cause: 'Blockage', fix: 'Cleaned', vendor: 'Runnel Drains', minutes: [60, 150], consequence: 'room', urgency: 'today', weight: 4 }),
  t({ category: 'water', trade: 'plumbing', where: /Studio/, asset: 'Shower pump', summary: 'Shower has no pressure', description: 'Only a trickle from the shower, hot and cold. It was fine last week.', symptom: 'Not working', cause: 'Failed part', fix: 'Replaced', parts: 'PL-302', minutes: [40, 90], consequence: 'one_person', urgency: 'today', weight: 6 }),
  t({ category: 'seawater', trade: 'life_support', where: /Gallery|Tank|Larval/, asset: 'Tank pump', summary: 'Tank pump is noisy', description: 'Grinding noise from the circulation pump, louder than yesterday. Flow still looks right.', symptom: 'Noisy', cause: 'Wear', fix: 'Replaced', parts: 'LS-401', minutes: [60, 160], consequence: 'safety', urgency: 'can_wait', weight: 5 }),
  t({ category: 'seawater', trade: 'life_support', where: /Pump hall|Filter hall|Seawater intake/, asset: 'Seawater pump', summary: 'Seawater flow is low', description: 'Flow to the header tank is down by a third since the night shift. Pressure on the gauge 1.2.', symptom: 'Not working', cause: 'Blockage', fix: 'Cleaned', minutes: [90, 220], consequence: 'safety', urgency: 'today', weight: 3 }),
  t({ category: 'door', trade: 'locks', where: /Studio|Office/, asset: 'Door lock', summary: 'Door does not lock', description: 'The key turns but the bolt does not come out. I cannot leave my things here.', symptom: 'Loose or broken', cause: 'Wear', fix: 'Replaced', parts: 'DR-502', minutes: [25, 60], consequence: 'one_person', urgency: 'today', weight: 7 }),
  t({ category: 'door', trade: 'locks', where: /Corridor|Archive|Auditorium/, asset: 'Fire door', summary: 'Fire door does not close by itself', description: 'It stays open a hand wide since somebody wedged it. The closer drips oil.', symptom: 'Loose or broken', cause: 'Misuse', fix: 'Replaced', parts: 'DR-501', minutes: [30, 70], consequence: 'building', urgency: 'this_week', weight: 4 }),
  t({ category: 'furniture', trade: 'joinery', where: /Office|Library|Classroom|Studio/, summary: 'Shelf is coming off the wall', description: 'The long shelf behind the desk has pulled out on the left side. We took the books down.', symptom: 'Loose or broken', cause: 'Damage', fix: 'Tightened', parts: 'DR-503', minutes: [30, 80], consequence: 'one_person', urgency: 'can_wait', weight: 6 }),
  t({ category: 'lift', trade: 'lifts', where: /Lift lobby/, asset: 'Lift', summary: 'Lift door opens and closes again', description: 'The visitor lift door on the ground floor closes, opens and closes for minutes. A family waited inside.', symptom: 'Works now and then', cause: 'Wear', fix: 'Adjusted', vendor: 'Halyard Lifts', minutes: [60, 140], consequence: 'building', urgency: 'today', weight: 1 }),
  t({ category: 'fire', trade: 'fire', where: /Gallery|Corridor|Archive|Office/, summary: 'Smoke detector beeps', description: 'One short beep every minute from the detector over the door.', symptom: 'Alarm', cause: 'Wear', fix: 'Replaced', minutes: [15, 40], consequence: 'room', urgency: 'this_week', weight: 4 }),
  t({ category: 'paint', trade: 'painting', where: /Corridor|Gallery|Studio|Office/, summary: 'Paint is peeling after the leak', description: 'About a square metre over the window, dry now.', symptom: 'Worn', cause: 'Weather', fix: 'Repaired', parts: 'GE-602', minutes: [60, 200], consequence: 'nobody', urgency: 'can_wait', weight: 4 }),
  t({ category: 'boat', trade: 'boats', where: /Boat workshop|Dive store/, summary: 'Outboard does not start', description: 'The 40 hp on the grey inflatable cranks but does not fire. Fuel is fresh.', symptom: 'Not working', cause: 'Failed part', fix: 'Repaired', minutes: [60, 180], consequence: 'one_person', urgency: 'this_week', weight: 3 }),
  t({ category: 'clean', trade: 'cleaning', where: /Café|Feed kitchen|Store|Kitchenette/, summary: 'Mouse droppings behind the cupboard', description: 'Found when moving the cupboard this morning. Photo possible.', symptom: 'Smell', cause: 'Not found', fix: 'Made safe', vendor: 'Quiet Paws', minutes: [40, 90], consequence: 'room', urgency: 'this_week', weight: 2 }),
  t({ category: 'other', trade: 'general', where: /./, summary: 'Ceiling leaks when it rains', description: 'Water comes through the ceiling by the window, a bucket in an hour when the wind is from the west.', symptom: 'Leaking', cause: 'Weather', fix: 'Repaired', parts: 'GE-601', minutes: [50, 150], consequence: 'room', urgency: 'this_week', weight: 3, season: WINTER }),
  t({ category: 'other', trade: 'general', where: /Car park|Quay|Gatehouse|Bicycle/, summary: 'Bollard was driven into', description: 'The third bollard from the gate leans over and has a sharp edge.', symptom: 'Loose or broken', cause: 'Damage', fix: 'Made safe', minutes: [40, 120], consequence: 'one_person', urgency: 'this_week', weight: 2 }),
]
