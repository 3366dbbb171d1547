/** A word of the trade that the app uses, and what it means. */
export interface Term {
  /** As it stands on screen, in lower case where it is no name. */
  term: string
  /** Other forms of it that mean the same: plurals, short forms. */
  also?: readonly string[]
  says: string
}

/** The words of the trade, in the order of the alphabet: what a person who stands at a machine for the first time needs to know. */
export const TERMS: readonly Term[] = [
  {
    term: 'allowance',
    also: ['may be out', 'allowed'],
    says: 'How far something may be off before it matters for this part.',
  },
  {
    term: 'bore',
    also: ['bores'],
    says: 'A round hole with a diameter that matters, cut or measured from inside.',
  },
  {
    term: 'boss',
    also: ['bosses'],
    says: 'A round piece that stands up from a face, measured from outside.',
  },
  {
    term: 'burr',
    also: ['burrs'],
    says: 'A thin edge of metal that a cut has pushed up. It keeps a part from lying flat.',
  },
  {
    term: 'canned cycle',
    also: ['cycle', 'cycles'],
    says: 'One line of a program that does a whole job, such as drilling a hole in pecks.',
  },
  {
    term: 'centre line',
    says: 'The line that a rotary or a lathe’s spindle turns about.',
  },
  {
    term: 'chamfer',
    also: ['chamfers'],
    says: 'An edge cut off at an angle, mostly 45 degrees, so that it is not sharp.',
  },
  {
    term: 'chip',
    also: ['chips'],
    says: 'A piece of cut metal. Under a part or a jaw it makes everything stand off.',
  },
  { term: 'chuck', says: 'What holds the bar or the part on a lathe and turns with it.' },
  {
    term: 'clamp',
    also: ['clamps'],
    says: 'A piece that presses the part down on the table. Tools must stay clear of it.',
  },
  {
    term: 'clearance',
    says: 'The height above the part at which a tool may move sideways without touching anything.',
  },
  { term: 'collet', also: ['collets'], says: 'A slotted sleeve that closes round a bar and holds it.' },
  {
    term: 'control',
    says: 'The computer of the machine, with its screen and keys: it carries the program out.',
  },
  { term: 'coolant', says: 'The liquid that cools the cut and washes chips away.' },
  { term: 'datum', says: 'A face or a hole of the drawing from which other places are measured.' },
  {
    term: 'dead-length',
    says: 'A collet that does not move along while it closes, so that the length of the part stays.',
  },
  { term: 'depth', says: 'How far down from the top of the part.' },
  {
    term: 'deviation',
    also: ['deviations'],
    says: 'How far a size is from the size on the drawing, with plus or minus.',
  },
  { term: 'dial', says: 'The round scale of an indicator: it shows very small movements.' },
  {
    term: 'doubt',
    says: 'How far off a number may be, from the instrument and how it was used. It is not a mistake.',
  },
  {
    term: 'draw tube',
    also: ['actuator'],
    says: 'The tube through the spindle of a lathe that pulls the collet or the jaws shut.',
  },
  { term: 'dwell', says: 'A short wait at the bottom of a hole or a groove, in seconds or turns.' },
  {
    term: 'edge finder',
    says: 'A round tip in the spindle that kicks aside when it runs against a face: it tells where the face is.',
  },
  { term: 'end mill', says: 'A cutter that cuts with its side and its end.' },
  { term: 'facing', also: ['face'], says: 'Cutting the end of a part flat.' },
  {
    term: 'feed',
    says: 'How fast the tool goes through the metal: a minute, or for each turn of the spindle.',
  },
  {
    term: 'feed hold',
    says: 'The key that stops all movement at once and keeps the program. A finger stays on it during a first run.',
  },
  { term: 'feeler', says: 'A thin strip of known thickness, slid between two things to measure the gap.' },
  {
    term: 'fixed jaw',
    also: ['jaw', 'jaws', 'moving jaw'],
    says: 'The side of a vise that does not move. Zeros are taken from it, so it must be square.',
  },
  {
    term: 'form tap',
    says: 'A tap that presses the thread into the metal instead of cutting it. It needs a larger hole.',
  },
  { term: 'gauge block', says: 'A block of exactly known height, put between the tool and the part.' },
  { term: 'gauge line', says: 'The place on the spindle from which tool lengths are measured.' },
  {
    term: 'gauging',
    also: ['gauge'],
    says: 'Measuring the part while it is still in the machine, by the program.',
  },
  { term: 'grip', also: ['gripped'], says: 'How the bar is held: in which collet, against which stop.' },
  { term: 'groove', also: ['grooves'], says: 'A narrow channel round a part, such as for a rubber ring.' },
  {
    term: 'home',
    also: ['homed'],
    says: 'The place where the machine finds out where its axes are after it is switched on.',
  },
  {
    term: 'indicator',
    says: 'An instrument with a dial whose stylus touches a face and shows how far it moves.',
  },
  { term: 'infeed', says: 'The way in. A tap comes out faster than it goes in: so many times the infeed.' },
  { term: 'insert', says: 'The small cutting piece of a lathe tool, clamped on its bar.' },
  { term: 'jog', also: ['jogged'], says: 'To move an axis by hand, with keys or a wheel.' },
  {
    term: 'machine position',
    also: ['machine positions'],
    says: 'Where an axis stands, counted from home. It does not depend on any offset.',
  },
  {
    term: 'modal',
    also: ['modes'],
    says: 'A code that stays in force until another one of its kind takes its place.',
  },
  {
    term: 'nose radius',
    says: 'How round the corner of an insert is. What is cut at an angle comes out wrong by it, unless the control allows for it.',
  },
  {
    term: 'offset',
    also: ['offsets', 'work offset'],
    says: 'The machine position at which the spindle stands over part zero: G54 and its like.',
  },
  {
    term: 'override',
    says: 'The dial that makes the machine slower or faster than the program says, in percent.',
  },
  {
    term: 'pallet',
    also: ['pallets'],
    says: 'A table with parts on it that is changed for another while the machine goes on.',
  },
  {
    term: 'part zero',
    says: 'The place on the part from which the program counts, mostly a corner and its top.',
  },
  { term: 'peck', also: ['pecks'], says: 'To go down in small steps and come back, so that chips come out.' },
  {
    term: 'pick up',
    also: ['picked up', 'pickup'],
    says: 'To find out where a face, a hole or a corner of the part is in the machine.',
  },
  { term: 'pitch', says: 'The distance from one turn of a thread to the next.' },
  {
    term: 'probe',
    also: ['probing', 'stylus'],
    says: 'A touch sensor in the spindle: the machine finds faces and sizes with it by itself.',
  },
  {
    term: 'proof',
    also: ['proved', 'prove'],
    says: 'The program played through here, against the part, the vise and the tools, before it runs.',
  },
  {
    term: 'R plane',
    says: 'The height to which a tool goes quickly before it begins to cut, a little above the part.',
  },
  {
    term: 'rapid',
    also: ['rapids'],
    says: 'A move as fast as the machine can. Nothing may stand in its way.',
  },
  { term: 'retract', also: ['retract speed'], says: 'To come back out of the hole.' },
  {
    term: 'rigid tapping',
    also: ['rigid'],
    says: 'Tapping in which spindle and feed go together exactly, so that the tap needs no play in its holder.',
  },
  { term: 'rotary', says: 'A table or chuck that turns the part, as a further axis: A, B or C.' },
  { term: 'serial number', says: 'A number that is different on every part.' },
  { term: 'set up', also: ['setup'], says: 'To get everything ready for one side of a part on one machine.' },
  { term: 'single block', says: 'The program stops after every line and waits for a press.' },
  { term: 'spindle', says: 'What turns: on a mill the tool, on a lathe the part.' },
  {
    term: 'squareness',
    also: ['square', 'squared'],
    says: 'Whether a face stands exactly along the axis of the machine.',
  },
  {
    term: 'stale',
    says: 'It was right once, and something has happened since that may have changed it. Do it again.',
  },
  {
    term: 'stick-out',
    also: ['stickout', 'out of the holder'],
    says: 'How far a tool or a bar stands out of what holds it. Less is stiffer.',
  },
  { term: 'stop', says: 'What the bar or the part is pushed against, so that every one lies the same.' },
  {
    term: 'sweep',
    also: ['swept'],
    says: 'To move a dial along a face, or round a bore, and read what it shows.',
  },
  {
    term: 'tap',
    also: ['taps', 'tapping', 'tapped holes'],
    says: 'A tool that cuts a thread in a hole; also what is done with a soft hammer to turn a vise.',
  },
  {
    term: 'tap drill',
    says: 'The drill for the hole that is then tapped. Its size decides how much thread there is.',
  },
  {
    term: 'tenth',
    also: ['tenths'],
    says: 'In a shop that works in inches: a ten-thousandth of an inch, 0.0001.',
  },
  { term: 'thou', says: 'A thousandth of an inch, 0.001: about as thick as thin paper.' },
  {
    term: 'thread',
    says: 'The groove of a screw. 1/4-20: a quarter inch wide, twenty turns to the inch. M6x1: 6 mm, 1 mm a turn.',
  },
  {
    term: 'tip number',
    says: 'How a control is told on which side of its nose an insert is programmed: 3 outside and 2 in a bore, towards the chuck.',
  },
  {
    term: 'tolerance',
    also: ['tolerances'],
    says: 'How far the size of a part may be from the drawing and still be good.',
  },
  {
    term: 'tool length',
    also: ['length of a tool'],
    says: 'How far the tip of a tool lies below the gauge line. The control must know it for every tool.',
  },
  { term: 'travel', says: 'How far an axis can go from end to end.' },
  { term: 'turret', says: 'The drum of a lathe that carries its tools.' },
  { term: 'vise', also: ['vises'], says: 'Two jaws that hold a part on the table; one is fixed, one moves.' },
  {
    term: 'walk-round',
    also: ['walk round'],
    says: 'Going once round the machine before work and looking at everything on its list.',
  },
  {
    term: 'way cover',
    says: 'The sheet metal over the slides behind the table. A long vise can run into it.',
  },
  { term: 'wear', says: 'What a cutting edge loses. It is entered in the control, so that the size stays.' },
  { term: 'web', says: 'A wall that stands up, measured from outside on two sides.' },
  {
    term: 'wrapping',
    also: ['wrapped'],
    says: 'A flat drawing laid round a cylinder, with the rotary turning under the tool.',
  },
]
