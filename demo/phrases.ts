import type { Rng } from './rng'

/** How people who do not speak maintenance say the same trouble: by its summary at the desk, one line and what they add. */
const SAID: Record<string, { lines: string[]; adds: string[] }> = {
  'Ceiling light flickers': {
    lines: [
      'Light keeps blinking',
      'Lamp over the table goes on and off',
      'Flickering tube',
      'One of the lights is dying',
      'Light is broken',
      'Strobe light in our room',
    ],
    adds: [
      'It gives everybody a headache.',
      'The one nearest the window.',
      'It hums as well.',
      'Sometimes it stays off for a minute.',
      'The other lamps are fine.',
    ],
  },
  'Socket by the desk is dead': {
    lines: [
      'No power at my desk',
      'Plug does not work',
      'Socket without electricity',
      'Cannot charge anything',
      'Power point is broken',
      'Outlet under the window is off',
    ],
    adds: [
      'The kettle works in the next one.',
      'I tried two chargers.',
      'It happened when the heater was plugged in.',
      'The left one of the pair.',
      'Nothing was switched off at the box.',
    ],
  },
  'Room does not get warm': {
    lines: ['It is freezing in here', 'Heater blows cold', 'Heating does not work', 'Cold office again', 'No heat in the room', 'Radiator stays cold'],
    adds: [
      'We are sitting in coats.',
      'The thermometer says fifteen.',
      'It was fine before the weekend.',
      'Turning the knob changes nothing.',
      'The corridor is warm.',
    ],
  },
  'Room is far too warm': {
    lines: ['It is boiling in here', 'Cooling does not work', 'Air conditioning is broken', 'Much too hot to work', 'No cold air', 'Room like an oven'],
    adds: [
      'Nearly thirty by noon.',
      'The fan turns but the air is warm.',
      'We opened the windows, it does not help.',
      'Next door is pleasant.',
      'Somebody felt faint.',
    ],
  },
  'Fume cupboard alarm sounds': {
    lines: [
      'Alarm on the fume hood',
      'Fume cupboard beeps all the time',
      'Low flow light on the extraction',
      'Extraction is weak',
      'Fume cupboard not sucking',
      'Red light on the hood',
    ],
    adds: ['We stopped work with solvents.', 'The sash is down.', 'The one by the door.', 'It started after lunch.', 'The others show green.'],
  },
  'Cold room is at 9 degrees': {
    lines: [
      'Cold room is not cold',
      'Cold store warming up',
      'Temperature in the cold room rising',
      'Walk-in fridge too warm',
      'Cold room alarm',
      'Cold room plant stopped',
    ],
    adds: [
      'Samples are inside.',
      'The display says eight and a half.',
      'The fans do not turn.',
      'The door was shut all night.',
      'Ice on the pipe at the back.',
    ],
  },
  'Freezer alarm, −61 and rising': {
    lines: ['Freezer alarm', 'Minus eighty is warming up', 'Ultra freezer beeps', 'Freezer shows minus sixty', 'Freezer not holding temperature'],
    adds: ['Tissue samples inside.', 'We are moving what we can.', 'The third from the left.', 'The door seals look fine.'],
  },
  'Tap drips': {
    lines: ['Dripping tap', 'Water tap leaks', 'Basin tap will not close', 'Tap keeps running a little', 'Leak at the sink', 'Drip drip all night'],
    adds: ['The cold side.', 'However hard one turns it.', 'About a litre in a night.', 'The right basin.', 'It has got worse since last week.'],
  },
  'Toilet keeps running': {
    lines: ['Toilet does not stop', 'Water running in the WC', 'Flush is stuck', 'Cistern keeps filling', 'Loo runs all day', 'Toilet is broken'],
    adds: [
      'Second cubicle from the door.',
      'Lifting the lid helps for a while.',
      'One hears it in the corridor.',
      'The button stays in.',
      'It wastes a lot of water.',
    ],
  },
  'Drain is blocked': {
    lines: ['Water does not go down', 'Shower floor is flooded', 'Smell from the drain', 'Sink is blocked', 'Floor drain overflows', 'Blocked outlet'],
    adds: ['It smells of sewage.', 'Water stands two fingers high.', 'Plunger did nothing.', 'Sand everywhere.', 'It comes up when next door showers.'],
  },
  'Shower has no pressure': {
    lines: ['Only a trickle in the shower', 'Weak shower', 'No water from the shower', 'Shower hardly runs', 'Low water pressure', 'Shower is broken'],
    adds: ['Hot and cold the same.', 'The basin is fine.', 'It was good last week.', 'The pump makes no sound.', 'I wash at the gym now.'],
  },
  'Tank pump is noisy': {
    lines: [
      'Pump makes a grinding noise',
      'Loud circulation pump',
      'Strange noise at the tank',
      'Tank pump rattles',
      'Pump sounds wrong',
      'Humming behind the tank',
    ],
    adds: ['Visitors ask about it.', 'Flow still looks right.', 'Louder than yesterday.', 'It is hot to the touch.', 'The fish do not seem to mind.'],
  },
  'Seawater flow is low': {
    lines: [
      'Too little seawater',
      'Flow to the header tank is down',
      'Low flow alarm on seawater',
      'Pressure dropping in the pump hall',
      'Seawater hardly runs',
      'Intake is weak',
    ],
    adds: [
      'Down by a third since the night.',
      'The gauge says one point two.',
      'The strainer may be full of weed.',
      'Tanks are still full.',
      'After the storm.',
    ],
  },
  'Door does not lock': {
    lines: ['Cannot lock my door', 'Lock is broken', 'Key turns and nothing happens', 'Door will not lock', 'Bolt does not come out', 'Room cannot be locked'],
    adds: ['My laptop is in there.', 'I have to lift the door.', 'The key comes out again.', 'It worked on Friday.', 'The other key is the same.'],
  },
  'Fire door does not close by itself': {
    lines: [
      'Fire door stays open',
      'Heavy door does not shut',
      'Door closer is broken',
      'Corridor door hangs open',
      'Door slams or stays open',
      'Closer leaks oil',
    ],
    adds: ['Somebody had wedged it.', 'A hand wide.', 'Oil on the floor below it.', 'The one by the stairs.', 'It is marked keep shut.'],
  },
  'Shelf is coming off the wall': {
    lines: ['Shelf is loose', 'Shelf about to fall', 'Bookshelf hangs down', 'Wall shelf is broken', 'Screws came out of the wall', 'Board over the desk sags'],
    adds: ['We took the books off.', 'The left end.', 'Plaster is coming out.', 'It is over where I sit.', 'The long one.'],
  },
  'Lift door opens and closes again': {
    lines: ['Lift door will not close', 'Elevator plays up', 'Lift stuck on the ground floor', 'Lift door opens and shuts'],
    adds: ['A family waited inside.', 'It went on for minutes.', 'The visitor lift.', 'It worked again later.'],
  },
  'Smoke detector beeps': {
    lines: [
      'Smoke alarm chirps',
      'Something beeps at the ceiling',
      'Detector makes a noise',
      'Beep every minute',
      'Fire alarm battery',
      'Annoying beep over the door',
    ],
    adds: ['Once a minute.', 'Day and night.', 'A small red light blinks.', 'No smoke anywhere.', 'Over the door.'],
  },
  'Paint is peeling after the leak': {
    lines: [
      'Paint comes off',
      'Wall looks awful',
      'Peeling paint by the window',
      'Flakes falling from the ceiling',
      'Damp mark on the wall',
      'Wall needs painting',
    ],
    adds: ['It is dry now.', 'About a square metre.', 'Where the leak was.', 'It falls on the desk.', 'Visitors see it first.'],
  },
  'Outboard does not start': {
    lines: [
      'Boat engine will not start',
      'Outboard dead',
      'Engine of the grey boat broken',
      'Cannot start the forty horse',
      'Motor cranks but does not fire',
      'Boat does not run',
    ],
    adds: ['Fuel is fresh.', 'The battery is full.', 'We go out on Thursday.', 'It ran last week.', 'Smells of petrol.'],
  },
  'Mouse droppings behind the cupboard': {
    lines: ['We have mice', 'Mouse in the kitchen', 'Droppings on the shelf', 'Something eats the biscuits', 'Mouse seen this morning', 'Pest in the store'],
    adds: ['Behind the cupboard.', 'I have seen it run.', 'Bags are bitten open.', 'A hole by the pipe.', 'Food is stored here.'],
  },
  'Ceiling leaks when it rains': {
    lines: ['Water comes through the roof', 'Leak in the ceiling', 'Dripping from above', 'Roof leaks again', 'Bucket under the ceiling', 'Rain comes in'],
    adds: ['When the wind is from the west.', 'A bucket an hour.', 'By the window.', 'The tile is brown already.', 'Near the lamp.'],
  },
  'Bollard was driven into': {
    lines: ['Bent post at the gate', 'Bollard leans over', 'Somebody drove into the bollard', 'Damaged post', 'Sharp edge in the car park', 'Post is broken'],
    adds: ['The third from the gate.', 'Children play there.', 'A van, I think.', 'It sticks into the lane.', 'Happened over night.'],
  },
}
const WHEN = ['Since this morning.', 'For some days now.', 'Since Monday.', 'I do not know since when.', 'It comes and goes.', 'Since the weekend.', '']
const SEEN = ['I have seen it myself.', 'A colleague told me.', 'Please have a look.', 'Thanks.', '', '', '']
/** The least that people write. */
const BARE = ['Something is broken here', 'Does not work', 'Please come and look', 'Broken again']

/** A trouble as somebody wrote it. Troubles there are no other words for are written as the desk has them. */
export function inOwnWords(rng: Rng, summary: string, description: string): { summary: string; description: string } {
  const said = SAID[summary]
  if (!said) return { summary, description }
  const bare = rng.chance(0.05)
  const line = bare ? rng.pick(BARE) : rng.chance(0.15) ? summary : rng.pick(said.lines)
  const first = rng.pick(said.adds)
  const second = rng.pick(said.adds)
  const words = [...(bare ? [rng.pick(said.lines) + '.'] : []), first, ...(second !== first && rng.chance(0.5) ? [second] : []), rng.pick(WHEN), rng.pick(SEEN)]
  return { summary: mistyped(rng, line), description: mistyped(rng, rng.chance(0.1) ? description : words.filter(Boolean).join(' ')) }
}

/** Now and then two letters of a longer word change places. */
function mistyped(rng: Rng, text: string): string {
  if (!rng.chance(0.12)) return text
  const words = text.split(' ')
  const long = words.flatMap((word, index) => (word.length > 5 ? [index] : []))
  if (!long.length) return text
  const index = rng.pick(long)
  const at = rng.int(1, words[index]!.length - 3)
  const word = [...words[index]!]
  ;[word[at], word[at + 1]] = [word[at + 1]!, word[at]!]
  words[index] = word.join('')
  return words.join(' ')
}
