import { formatAngle } from '../angle/index.ts'
import type { Freshness } from '../fact/index.ts'
import { formatWithUnit } from '../quantity/index.ts'
import { deriveSetup, type Setup } from './derive.ts'
import type { Entry, Logged } from './kinds.ts'
import { isUnreadable } from './log-lines.ts'
import type { OffsetState } from './offsets.ts'
import type { Reference } from './reference.ts'

/** The standing facts of an offset by name, with what is said of each. */
function factsOf(
  { name, axes, rotary, angle, stock, check, program, further }: OffsetState,
  unit: Setup['unit'],
): Map<string, { stale: boolean; says: string }> {
  const facts = new Map<string, { stale: boolean; says: string }>()
  for (const fact of Object.values(axes))
    facts.set(`${name} ${fact.axis}`, {
      stale: fact.freshness.state === 'stale',
      says: formatWithUnit(fact.value, unit),
    })
  if (rotary)
    facts.set(`${name} ${rotary.axis}`, {
      stale: rotary.freshness.state === 'stale',
      says: `${formatAngle(rotary.flat.value)} deg`,
    })
  if (angle)
    facts.set(`The angle of ${name}`, {
      stale: angle.freshness.state === 'stale',
      says: `${formatAngle(angle.angle.value)} deg`,
    })
  if (stock)
    facts.set(`The stock of ${name}`, { stale: stock.freshness.state === 'stale', says: stock.entry.id })
  if (check)
    facts.set(`The check of ${name}`, { stale: check.freshness.state === 'stale', says: check.entry.id })
  if (program)
    facts.set(`The program for ${name}`, {
      stale: program.freshness.state === 'stale',
      says: program.entry.id,
    })
  for (const [what, fact] of Object.entries(further))
    facts.set(`The ${FURTHER[what] ?? what} for ${name}`, {
      stale: fact.freshness.state === 'stale',
      says: fact.entry.id,
    })
  return facts
}

const FURTHER: Record<string, string> = {
  angle: 'turning program',
  turned: 'turned program',
  probe: 'probe program',
  bar: 'program of the bar stop',
  setting: 'program for tool lengths',
}

const ratioOf = ({ name }: { name: string }) => `The measured ratio of ${name}`

/** The standing facts of the Hold step by name. */
function holdFacts({ hold, unit }: Setup): Map<string, { stale: boolean; says: string }> {
  const facts = new Map<string, { stale: boolean; says: string }>()
  const put = (name: string, fact: { freshness: Freshness } | undefined, says: string) => {
    if (fact) facts.set(name, { stale: fact.freshness.state === 'stale', says })
  }
  const square = hold.sweeps.at(-1)
  put(
    'The squareness of the vise',
    square,
    square?.squared.ok ? formatWithUnit(square.squared.outOfSquare.value, unit) : '',
  )
  put('The look at the fixed jaw', hold.upright, hold.upright?.entry.id ?? '')
  put('The clearance of the vise', hold.clearance, hold.clearance?.entry.id ?? '')
  put('The choice of collet and stop', hold.grip, hold.grip?.entry.id ?? '')
  for (const fact of hold.lengths.values()) put(ratioOf(fact.collet), fact, fact.entry.id)
  for (const { says, tick } of hold.checks) put(`The look "${says}"`, tick, tick?.entry.id ?? '')
  return facts
}

function partFact({ part }: Setup): [string, { stale: boolean; says: string }][] {
  return part
    ? [['The look at the part', { stale: part.freshness.state === 'stale', says: part.entry.id }]]
    : []
}

function codeFacts({ code: { coded, taken } }: Setup): [string, { stale: boolean; says: string }][] {
  return [
    ...coded.map(({ entry, freshness }): [string, { stale: boolean; says: string }] => [
      `The code of ${entry.sheet.title}`,
      { stale: freshness.state === 'stale', says: entry.id },
    ]),
    ...[...taken].map(([title, { entry, freshness }]): [string, { stale: boolean; says: string }] => [
      `The program ${title} at the control`,
      { stale: freshness.state === 'stale', says: entry.id },
    ]),
  ]
}

function proveFacts({ prove: { layout, proofs } }: Setup): [string, { stale: boolean; says: string }][] {
  return [
    ...(layout
      ? [
          [
            'The layout of the work area',
            { stale: layout.freshness.state === 'stale', says: layout.entry.id },
          ] as [string, { stale: boolean; says: string }],
        ]
      : []),
    ...proofs.map(({ entry, freshness }): [string, { stale: boolean; says: string }] => [
      `The proof of ${entry.title}`,
      { stale: freshness.state === 'stale', says: entry.id },
    ]),
  ]
}

const gaugeFacts = ({ gauge: { plans, taken } }: Setup): [string, { stale: boolean; says: string }][] => [
  ...plans.map(({ entry, freshness }): [string, { stale: boolean; says: string }] => [
    `The gauging of ${entry.plan.head.title}`,
    { stale: freshness.state === 'stale', says: entry.id },
  ]),
  ...[...taken].map(([title, { entry, freshness }]): [string, { stale: boolean; says: string }] => [
    `The gauging program ${title} at the control`,
    { stale: freshness.state === 'stale', says: entry.id },
  ]),
]

const runFacts = ({ run: { pallets, start } }: Setup): [string, { stale: boolean; says: string }][] =>
  [['The plan of the pallets', pallets] as const, ['The check before the start', start] as const].flatMap(
    ([name, fact]) =>
      fact ? [[name, { stale: fact.freshness.state === 'stale', says: fact.entry.id }]] : [],
  )

const shiftFacts = ({ shift }: Setup): [string, { stale: boolean; says: string }][] =>
  shift ? [['The work shift', { stale: shift.freshness.state === 'stale', says: shift.entry.id }]] : []

const centreFacts = ({ centre }: Setup): [string, { stale: boolean; says: string }][] =>
  centre
    ? [['The rotary’s centre line', { stale: centre.freshness.state === 'stale', says: centre.entry.id }]]
    : []

const allFacts = (setup: Setup) =>
  new Map([
    ...holdFacts(setup),
    ...centreFacts(setup),
    ...shiftFacts(setup),
    ...partFact(setup),
    ...codeFacts(setup),
    ...proveFacts(setup),
    ...gaugeFacts(setup),
    ...runFacts(setup),
    ...setup.offsets.flatMap((offset) => [...factsOf(offset, setup.unit)]),
  ])

/** The names of the facts of a setup that are stale; not a measured ratio that no choice of collet and stop rests on. */
export function nameStaleFacts(setup: Setup): string[] {
  const { grip, lengths } = setup.hold
  const unused = new Set(
    [...lengths.values()].flatMap(({ entry, collet }) =>
      grip?.entry.rests.includes(entry.id) ? [] : [ratioOf(collet)],
    ),
  )
  return [...allFacts(setup)].flatMap(([name, { stale }]) => (stale && !unused.has(name) ? [name] : []))
}

/**
 * What adding an entry would change, a sentence each, before it is added: what goes stale, what is fresh again,
 * what falls back to an earlier value, what goes away. Empty when nothing does.
 */
export function whatIf(entries: readonly Logged[], added: Entry, reference: Reference): string[] {
  const now = deriveSetup(entries, reference)
  const then = deriveSetup([...entries, added], reference)
  if (isUnreadable(now) || isUnreadable(then)) return []
  const before = allFacts(now)
  const after = allFacts(then)
  const names = [...new Set([...before.keys(), ...after.keys()])]
  return names.flatMap((name) => {
    const was = before.get(name)
    const is = after.get(name)
    if (was && !is) return [`${name} goes away.`]
    if (!was && is) return [`${name} comes back${name.startsWith('The ') ? '' : `: ${is.says}`}.`]
    if (!was || !is) return []
    if (was.says !== is.says)
      return [`${name} falls back to an earlier one${name.startsWith('The ') ? '' : `: ${is.says}`}.`]
    if (!was.stale && is.stale) return [`${name} goes stale.`]
    return was.stale && !is.stale ? [`${name} is fresh again.`] : []
  })
}

/** The names of the facts of a setup that are fresh now and would be stale once entries are added to its log. */
export function wouldGoStale(
  now: Setup,
  entries: readonly Logged[],
  added: readonly Logged[],
  reference: Reference,
): string[] {
  const then = deriveSetup([...entries, ...added], reference)
  if (isUnreadable(then)) return []
  const before = new Set(nameStaleFacts(now))
  return nameStaleFacts(then).filter((name) => !before.has(name))
}
