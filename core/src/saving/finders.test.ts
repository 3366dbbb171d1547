import { describe, expect, it } from 'vitest'
import { endOf } from '../program/index.ts'
import { type Body, type Proof, type ProveCase, prove } from '../prove/index.ts'
import type { Candidate, SavingCase } from './case.ts'
import { savingCase } from './case.ts'
import { cutsOf, findSavings, noWorse } from './find.ts'
import { holeFinders } from './holes.ts'
import { idleFinders } from './idle.ts'
import { moveFinders } from './moves.ts'
import { box, candidatesOf, offer, offersOf, on, point, program, shape, tool } from './testing.ts'
import { toolOrder } from './tool-order.ts'

// Programs and their changes, written out by hand. Clearance over and beside the part is 0.1 in (common practice).

const [retractMultiple, returnPlane, lowerR, lowerInitial, holeOrder] = holeFinders as [
  Find,
  Find,
  Find,
  Find,
  Find,
]
const [rapidPieces, airAtFeed] = moveFinders as [Find, Find]
const [dwells, probeOnOff] = idleFinders as [Find, Find]
type Find = (of: SavingCase) => Candidate[]

const lines = (found: readonly Candidate[]) => found.map(({ after }) => after.split('\n'))
/** The lines of a program that a change has and the program has not. */
const changedLines = (finder: Find, body: string, ...rest: [more?: Body[], change?: Partial<ProveCase>]) => {
  const text = program(body)
  const known = new Set(text.split('\n'))
  return lines(candidatesOf(finder, text, ...rest)).map((each) => each.filter((line) => !known.has(line)))
}

describe('tapping out faster', () => {
  const tap = (words: string, s = 1000) =>
    `${tool(3, 1, 1)}S${s}\n${words} X1. Y1. Z-.5 R.2 F${s / 20}.\nG80\n`

  it('is as many times as fast as the spindle taps: 3,000 rpm here', () => {
    const [found] = candidatesOf(retractMultiple, program(tap('G98 G84')))
    expect(found?.after).toContain('F50. J3\n')
    expect(found?.why).toBe(
      'It comes out at the speed that it went in; 3000 rpm is within what the spindle taps at.',
    )
    expect(changedLines(retractMultiple, tap('G99 G84', 800))).toEqual([
      ['G99 G84 X1. Y1. Z-.5 R.2 F40. J3.7'],
    ])
  })

  it('counts from what it has, and leaves it where there is no tenth to win', () => {
    expect(changedLines(retractMultiple, tap('G98 G84 J2.9'))).toEqual([['G98 G84 J3 X1. Y1. Z-.5 R.2 F50.']])
    const [found] = candidatesOf(retractMultiple, program(tap('G98 G84 J2')))
    expect(found?.why).toMatch(/^It comes out at 2 times the speed in; 3000 rpm /)
    for (const none of [tap('G98 G84 J3'), `${tool(3, 1, 1)}S0\nG98 G84 X1. Y1. Z-.5 R.2 F15.\nG80\n`])
      expect(candidatesOf(retractMultiple, program(none))).toEqual([])
  })

  it('is whole where the control reads whole numbers only', () => {
    const { profile } = on('')
    const { tapRetract } = profile.reading
    const whole = {
      profile: {
        ...profile,
        reading: { ...profile.reading, tapRetract: tapRetract && { ...tapRetract, decimal: false } },
      },
    }
    expect(changedLines(retractMultiple, tap('G98 G84'), [], whole)).toEqual([
      ['G98 G84 X1. Y1. Z-.5 R.2 F50. J3'],
    ])
    expect(changedLines(retractMultiple, tap('G98 G84', 800), [], whole)).toEqual([
      ['G98 G84 X1. Y1. Z-.5 R.2 F40. J3'],
    ])
  })
})

describe('levels of a cycle', () => {
  it('R: the usual clearance over the part, in the frame of the program; none where it is there', () => {
    const drill = (r: string) => `${tool(1, 1, 1)}G99 G81 X1. Y1. Z-.5 R${r} F10.\nG80\n`
    const [found] = candidatesOf(lowerR, program(drill('.8')))
    expect(found?.why).toBe('From R 0.8000 in down the tool feeds through air, at every hole.')
    expect(changedLines(lowerR, drill('.8'))).toEqual([['G99 G81 X1. Y1. Z-.5 R0.1 F10.']])
    expect(candidatesOf(lowerR, program(drill('.1')))).toEqual([])
    // A frame half an inch up: the same place is called half an inch less.
    expect(changedLines(lowerR, `G52 Z.5\n${drill('.3')}G52 Z0.\n`)).toEqual([
      ['G99 G81 X1. Y1. Z-.5 R-0.4 F10.'],
    ])
  })

  it('the level before the holes: over the highest that stands there, and over R', () => {
    const drill = (z: number, between = '') =>
      `${tool(1, 1, 1, z)}${between}G98 G81 X1. Y1. Z-.5 R.1 F10.\nX2.\nG80\n`
    const clamp = box('clamp', 'clamp', [3, 0, 0], [1, 2, 1])
    expect(changedLines(lowerInitial, drill(9))).toEqual([['G43 H1 Z0.1 M8']])
    expect(changedLines(lowerInitial, drill(9), [clamp])).toEqual([['G43 H1 Z1.1 M8']])
    // Ways at one height between it and the holes are none of it.
    expect(changedLines(lowerInitial, drill(9, 'G0 X2.\nY2.\n'), [clamp])).toEqual([['G43 H1 Z1.1 M8']])
    expect(changedLines(lowerInitial, drill(9).replace('R.1', 'R.7'))).toEqual([['G43 H1 Z0.7 M8']])
    expect(candidatesOf(lowerInitial, program(drill(1.1)), [clamp])).toEqual([])
    // The very first move may be the one that comes down; where it stands there already, nothing came down.
    const first = (z: string) => `O1\nG20 G90 G54 G0 G43 H1 Z${z}\nG98 G81 X1. Y1. Z-.5 R.1 F10.\nG80\nM30\n`
    expect(lines(candidatesOf(lowerInitial, first('9.'))).map((each) => each[1])).toEqual([
      'G20 G90 G54 G0 G43 H1 Z0.1',
    ])
    const home = prove(on(first('9.'))).program.motion
    expect(candidatesOf(lowerInitial, first(point(endOf(home, -1)[2])))).toEqual([])
  })

  it('G99, and G98 for the cycle that leaned on it; a feed of 98 is no plane', () => {
    const body = `${tool(1, 1, 1)}G98 G81 X1. Y1. Z-.5 R.1 F10.\nX2.\nG0 Z1.\nG83 X2. Y3. Z-.5 R.1 Q.1 F98.\nG80\n`
    expect(changedLines(returnPlane, body)[0]).toEqual([
      'G99 G81 X1. Y1. Z-.5 R.1 F10.',
      'G83 G98 X2. Y3. Z-.5 R.1 Q.1 F98.',
    ])
  })
})

describe('the order of holes, worked by hand', () => {
  // Rapids of 10 in/s with 50 in/s2 on both axes; the slower axis counts: d/10 + .2 s from 2 in on, else 2 sqrt(d/50).
  const scattered = `${tool(1, 1, 1)}G99 G81 X1. Y1. Z-.5 R.1 F10. (A)\nX7.125 Y3.5 (B)\nX1.5 Y1. (C)\nX6.5 Y3.5 (D)\nG80\n`

  it('writes each hole where another stood, with its words and what is said of it', () => {
    const [found] = candidatesOf(holeOrder, program(scattered))
    expect(found?.after).toContain(
      'G99 G81 X1. Y1. Z-.5 R.1 F10. (A)\nX1.5 Y1. (C)\nX6.5 Y3.5 (D)\nX7.125 Y3.5 (B)\nG80\n',
    )
    // As it is: 6.125 in, 5.625, 5: .8125 + .7625 + .7 = 2.3 s. Then .5, 5, .625: .2 + .7 + .224 = 1.1 s.
    expect(found?.why).toBe('The way between them takes 2.3 s; the shortest of all orders takes 1.1 s.')
    expect(found?.says).toBe('The 4 holes in a shorter order.')
  })

  it('begins at the hole that is nearest to where the tool comes from, and ends towards where it goes', () => {
    // Comes from X1: the first hole changes, and its words have other lengths. Up and down in Y alone.
    const first = `${tool(1, 1, 1)}G99 G81 X1. Y3.875 Z-.5 R.1 F10.\nY1.\nY2.5\nG80\nG0 Z2.\n`
    expect(candidatesOf(holeOrder, program(first))[0]?.after).toContain(
      'G99 G81 X1. Y1. Z-.5 R.1 F10.\nX1. Y2.5\nX1. Y3.875\nG80\n',
    )
    const both = `${tool(1, 7, 3)}G99 G81 X1. Y1. Z-.5 R.1 F10.\nX6.125 Y3.25\nX3. Y2.\nG80\nG0 Z2.\n`
    expect(candidatesOf(holeOrder, program(both))[0]?.after).toContain(
      'G99 G81 X6.125 Y3.25 Z-.5 R.1 F10.\nX3. Y2.\nX1. Y1.\nG80\n',
    )
    // It goes on to X0 from the last: the way there counts.
    const on = `${tool(1, 3, 1)}G99 G81 X2. Y1. Z-.5 R.1 F10.\nX7. Y1.\nX4. Y1.\nG80\nG0 Z1.\nX0.\n`
    expect(candidatesOf(holeOrder, program(on))[0]?.after).toContain(
      'X4. Y1. Z-.5 R.1 F10.\nX7. Y1.\nX2. Y1.\nG80\n',
    )
  })

  it('says nothing of holes in the best order, nor where the cycle is repeated', () => {
    const best = `${tool(1, 1, 1)}G99 G81 X1. Y1. Z-.5 R.1 F10.\nX2. Y1.\nX3. Y1.\nG80\n`
    expect(candidatesOf(holeOrder, program(best))).toEqual([])
    const again = scattered.replace('F10. (A)', 'F10. L1 (A)')
    expect(candidatesOf(holeOrder, program(again))).toEqual([])
  })

  it('claims the shortest of all up to eleven holes, and a shorter one beyond', () => {
    const many = (n: number) =>
      `${tool(1, 0, 1)}G99 G81 X0. Y1. Z-.5 R.1 F10.\n${Array.from({ length: n - 1 }, (_, i) => `X${(i * 5 + 3) % n}. Y${i % 2}.\n`).join('')}G80\n`
    expect(candidatesOf(holeOrder, program(many(11)))[0]?.why).toContain('the shortest of all orders takes')
    expect(candidatesOf(holeOrder, program(many(12)))[0]?.why).toContain('; a shorter order takes')
  })
})

describe('moves at feed in air, and rapids in two pieces', () => {
  it('a rapid up in one: the later height, and the G0 that the first had', () => {
    const up = (pieces: string) => `${tool(2, 1, 1)}G1 Z-.1 F10.\nX3.\n${pieces}X5.\n`
    for (const pieces of ['G0 Z.5\nZ2.\n', 'G0 Z.5\nG0 Z2.\n']) {
      const [found] = candidatesOf(rapidPieces, program(up(pieces)))
      expect(found?.after).toContain('X3.\nG0 Z2.\nX5.\n')
      expect([found?.says, found?.risk, found?.mind]).toEqual([
        'Up in one rapid instead of two.',
        'none',
        'It ends at the same height.',
      ])
    }
    const [down] = candidatesOf(rapidPieces, program(`${tool(2, 1, 1, 5)}G0 Z2.\nZ1.\nG1 Z-.1 F10.\n`))
    expect([down?.says, down?.risk]).toEqual(['Down in one rapid instead of two.', 'some'])
    expect(down?.mind).toContain('on the way down')
  })

  // T2 is .5 across. Beside the part counts from its radius and the clearance: .35 in.
  const beside = (x: string) => `${tool(2, 1, 1)}G0 X${x} Y1.\nG0 Z-.2\nG1 Y3. F20.\nG0 Z1.\n`
  it('beside the part from the radius of the tool and the clearance on, not nearer', () => {
    expect(changedLines(airAtFeed, beside('-.36'))).toEqual([['G0 Y3. F20.']])
    expect(candidatesOf(airAtFeed, program(beside('-.34')))).toEqual([])
    expect(changedLines(airAtFeed, beside('8.36'))).toEqual([['G0 Y3. F20.']])
    expect(candidatesOf(airAtFeed, program(beside('8.34')))).toEqual([])
    // Of a tool that is not in the table nobody knows the radius.
    expect(candidatesOf(airAtFeed, program(beside('-3.')), [], { tools: [] })).toEqual([])
  })

  it('over the part from the clearance on', () => {
    const over = (z: string) => `${tool(2, 1, 1)}Z${z}\nG1 X3. F20.\nG0 Z1.\n`
    expect(changedLines(airAtFeed, over('.1'))).toEqual([['G0 X3. F20.']])
    expect(candidatesOf(airAtFeed, program(over('.09')))).toEqual([])
  })

  it('a line that leaned on its G1 gets it, with its feed; one that says its own does not', () => {
    const after = (next: string) =>
      changedLines(airAtFeed, `${tool(2, 1, 1)}G1 Z.2 F15.\n${next}\nG0 Z1.\n`)[0]
    expect(after('Z-.1')).toEqual(['G0 Z.2 F15.', 'G1 Z-.1 F15.'])
    expect(after('Z-.1 F5.')).toEqual(['G0 Z.2 F15.', 'G1 Z-.1 F5.'])
    expect(after('G1 Z-.1')).toEqual(['G0 Z.2 F15.'])
    expect(after('G3 X2. Y2. Z-.1 I1. J0. F10.')).toEqual(['G0 Z.2 F15.'])
  })

  it('a plunge goes at rapid to the clearance, from more than as much above it; a ramp stays as it is', () => {
    const down = (z: string, move = 'G1 Z-.1 F10.') => `${tool(2, 1, 1)}Z${z}\n${move}\nX3.\n`
    const [found] = candidatesOf(airAtFeed, program(down('.5')))
    expect(found?.after).toContain('Z.5\nG0 Z0.1\nG1 Z-.1 F10.\nX3.\n')
    expect(found?.why).toBe('From 0.5000 in over the part it comes down at feed.')
    for (const none of [down('.15'), down('.2'), down('.5', 'G1 X2. Z-.1 F10.')])
      expect(candidatesOf(airAtFeed, program(none))).toEqual([])
    // A part whose top is half an inch up.
    const higher = on('').layout.bodies.map((each) => ({ ...each, at: { ...each.at, z: each.at.z + 0.5 } }))
    const layout = { unit: 'inch' as const, bodies: higher }
    const [raised] = candidatesOf(airAtFeed, program(down('2.')), [], { layout })
    expect(raised?.says).toBe('At rapid to Z0.6, then at feed.')
    expect(raised?.why).toBe('From 1.5000 in over the part it comes down at feed.')
  })
})

describe('what a change may not do', () => {
  const proofOf = (body: string) => prove(on(program(body)))
  const said = (...findings: readonly (readonly ['stop' | 'look' | 'note', number?])[]) => ({
    findings: findings.map(([severity, more]) => ({
      severity,
      code: 'x',
      says: '',
      ...(more === undefined ? {} : { more }),
    })) as unknown as Proof['findings'],
  })

  it('more stops, or more looks, or the same more often; notes are free', () => {
    const before = said(['stop'], ['look', 2], ['note'])
    expect(noWorse(before, before)).toBe(true)
    expect(noWorse(said(['look', 2]), before)).toBe(true)
    expect(noWorse(said(['stop'], ['look', 2], ['note'], ['note', 9]), before)).toBe(true)
    expect(noWorse(said(['stop'], ['look', 3]), before)).toBe(false)
    expect(noWorse(said(['stop', 1], ['look', 2]), before)).toBe(false)
    expect(noWorse(said(['stop'], ['stop'], ['look']), before)).toBe(false)
    expect(noWorse(said(['stop'], ['look'], ['look']), before)).toBe(false)
    // Two things once each are as often as one twice, but more things.
    expect(noWorse(said(['look', 2]), said(['look'], ['look'], ['look']))).toBe(true)
    expect(noWorse(said(['look', 3]), said(['look'], ['look'], ['look']))).toBe(false)
  })

  it('another end of a cut, from a hundred-thousandth on; another order of the same cuts is none', () => {
    const cuts = (body: string) => {
      const proof = proofOf(body)
      return cutsOf(proof, savingCase(on(program(body)), proof), true)
    }
    const cut = (x: string, y = '1.') => `${tool(2, 1, 1)}G1 Z-.1 F9.\nX${x} Y${y}\nG0 Z1.\n`
    expect(cuts(cut('2.'))).toBe(cuts(cut('2.000001')))
    expect(cuts(cut('2.'))).not.toBe(cuts(cut('2.0001')))
    expect(cuts(cut('2.'))).not.toBe(cuts(cut('2.', '1.0001')))
    expect(cuts(cut('2.') + cut('3.'))).toBe(cuts(cut('3.') + cut('2.')))
  })
})

describe('waiting', () => {
  it('a dwell goes, with or without a line number; what it waits for decides what is said', () => {
    const [spindle] = candidatesOf(dwells, program('S1000 M3\nN50 G4 P3.\n'))
    expect(spindle?.says).toBe('Without the dwell of 3 s.')
    expect([spindle?.why, spindle?.risk]).toEqual([
      'The control waits until the spindle is up to speed by itself.',
      'little',
    ])
    for (const text of [
      'G4 P2.\nG20 G0 X1.\nM30\n',
      program('M8\nG4 P2.\n'),
      program('G54 G0 X1.\nG4 P2.\n'),
    ])
      expect(candidatesOf(dwells, text).map(({ why }) => why)).toEqual([
        'The tool stands in the air and waits for nothing.',
      ])
    expect(candidatesOf(dwells, program('G4 P0.\n'))).toEqual([])
  })

  it('nothing is moved about where a line runs more than once', () => {
    const loop = program('#1=0\nWHILE [#1 LT 3] DO1\nG4 P2.\n#1=#1+1\nEND1\n')
    const of = on(loop)
    const own = savingCase(of, prove(of))
    const dwell = loop.split('\n').indexOf('G4 P2.') + 1
    expect(own.runs.get(dwell)).toBe(3)
    expect(own.jumps).toBe(true)
    expect(dwells(own)).toEqual([])
  })

  it('between two features the probe goes protected, and what says no place stays as it is', () => {
    const feature = (x: number) => `G65 P9810 X${x}. Y2. F120.\nG65 P9811 Z0.\nG65 P9810 Z1. F120.\n`
    const text = `T20 M6\nG90 G54 G0 X1. Y2.\nG43 H20 Z2.\nG65 P9832\n${feature(1)}G65 P9833\nG0\n(ON)\nX4. Y2.\nZ1.5\nG65 P9832\n${feature(4)}G65 P9833\n`
    const [found, ...more] = candidatesOf(probeOnOff, text)
    expect(more).toEqual([])
    expect(found?.after).toBe(
      `T20 M6\nG90 G54 G0 X1. Y2.\nG43 H20 Z2.\nG65 P9832\n${feature(1)}G0\n(ON)\nG65 P9810 X4. Y2. F120.\nG65 P9810 Z1.5 F120.\n${feature(4)}G65 P9833\n`,
    )
  })
})

describe('a tool that comes back, worked by hand', () => {
  // T2 and T4 are .5 across, T1 is .2. Boxes in plan with the radius; apart along one axis is enough, touching is not.
  const tools = [...on('').tools, { ...shape(4, 'mill', 0.5) }]
  const three = (between: string, later: [number, number], cut = 'X') => {
    const [x, y] = later
    const to = cut === 'X' ? `X${point(x + 1)}` : `Y${point(y + 1)}`
    return `${tool(2, 1, 1)}G1 Z-.1 F9.\nX1.5\nG0 Z1.\n${between}G0 Z1.\n${tool(2, x, y)}G1 Z-.1 F9.\n${to}\nG0 Z1.\n`
  }
  const drilled = (x: number, y: number) =>
    `${tool(1, x, y)}G81 X${point(x)} Y${point(y)} Z-.5 R.1 F9.\nG80\n`
  const milled = (from: string, to: string) => `${tool(4, 4, 1)}G0 ${from}\nG1 Z-.1 F9.\n${to}\n`
  const offered = (body: string) => candidatesOf(toolOrder, program(body), [], { tools }).length

  it('apart along X, or along Y, by both radii', () => {
    // The hole reaches to 4.1; the cutter from x - .25.
    expect(offered(three(drilled(4, 1), [4.36, 1]))).toBe(1)
    expect(offered(three(drilled(4, 1), [4.34, 1]))).toBe(0)
    expect(offered(three(drilled(4, 1), [4, 1.36]))).toBe(1)
    expect(offered(three(drilled(4, 1), [4, 1.34]))).toBe(0)
    // From the other side: it cuts up to x + 1.25.
    expect(offered(three(drilled(6, 1), [4.64, 1]))).toBe(1)
    expect(offered(three(drilled(6, 1), [4.66, 1]))).toBe(0)
    expect(offered(three(drilled(4, 3), [4, 1.64], 'Y'))).toBe(1)
    expect(offered(three(drilled(4, 3), [4, 1.66], 'Y'))).toBe(0)
    // Two radii of .25 at half an inch touch.
    expect(offered(three(milled('X3. Y1.', 'X4.'), [4.5, 1]))).toBe(0)
    expect(offered(three(milled('X3. Y1.', 'X4.'), [4.625, 1]))).toBe(1)
    expect(offered(three(milled('X7. Y1.', 'X6.5'), [5, 1]))).toBe(0)
  })

  it('from where a cut begins, and for an arc as far as its circle may reach', () => {
    expect(offered(three(milled('X4. Y1.', 'X3.'), [4.4, 1]))).toBe(0)
    // Down at rapid, so that only the end of that says where the cut begins.
    expect(offered(three(`${tool(4, 4, 1)}G0 X4. Y1.\nZ-.1\nG1 X3. F9.\n`, [4.4, 1]))).toBe(0)
    // A quarter of radius .8 that ends at X4: 4 + .25 + 1.6 = 5.85.
    const arc = milled('X3.2 Y1.', 'G2 X4. Y1.8 I.8 J0.')
    expect(offered(three(arc, [6.05, 1]))).toBe(0)
    expect(offered(three(arc, [6.15, 1]))).toBe(1)
    // A tap is no arc.
    const tapped = `${tool(3, 4, 1)}S300\nG84 X4. Y1. Z-.5 R.2 F15.\nG80\n`
    expect(offered(three(tapped, [4.4, 1]))).toBe(1)
  })

  it('moves the whole stretch, and the tool stays in', () => {
    const first = `${tool(2, 1, 1)}G1 Z-.1 F9.\nX1.5\nG0 Z1.\n`
    const between = drilled(4, 1)
    const again = 'G90 G54 G0 X6. Y1.\nS1000 M3\nG43 H2 Z1. M8\nG1 Z-.1 F9.\nX7.\nG0 Z1.\n'
    const end = 'M9\nM5\nG53 G0 Z0.\n'
    const [found, ...more] = candidatesOf(toolOrder, `O1\nG20\n${first}${between}T2 M6\n${again}${end}M30\n`)
    expect(more).toEqual([])
    expect(found?.after).toBe(`O1\nG20\n${first}${again}${end}${between}M30\n`)
    expect(found?.says).toBe('T2 does both its jobs in one go: one tool change less.')
    // Without an end the text is its own.
    const [open] = candidatesOf(toolOrder, `O1\nG20\n${first}${between}T2 M6\n${again}`.trimEnd())
    expect(open?.after).toBe(`O1\nG20\n${first}${again}${between}`.trimEnd())
  })

  it('is not a tool that is called twice in a row', () => {
    expect(
      offered(`${tool(2, 1, 1)}G1 Z-.1 F9.\nX2.\nG0 Z1.\n${tool(2, 6, 1)}G1 Z-.1 F9.\nX7.\nG0 Z1.\n`),
    ).toBe(0)
  })
})

describe('room round what stands in the way, and the list', () => {
  // Two holes with R half an inch up: between them a drill .2 across goes along Y1 at Z.5.
  const along = (bodies: ReturnType<typeof box>[]) =>
    offer(
      offersOf(`${tool(1, 1, 1, 3)}G98 G81 X1. Y1. Z-.5 R.5 F10.\nX6.\nG80\n`, bodies),
      'return-plane',
    ) !== undefined
  const across = (bodies: ReturnType<typeof box>[]) =>
    offer(
      offersOf(`${tool(1, 4, 0.5, 3)}G98 G81 X4. Y.5 Z-.5 R.5 F10.\nY3.5\nG80\n`, bodies),
      'return-plane',
    ) !== undefined

  it('a box is kept clear of by .1 in on every side', () => {
    expect(along([box('c', 'clamp', [2.8, -2, 0], [0.4, 8, 0.39])])).toBe(true)
    expect(along([box('c', 'clamp', [2.8, -2, 0], [0.4, 8, 0.41])])).toBe(false)
    expect(along([box('c', 'clamp', [2.8, 1.21, 0], [0.4, 1, 2])])).toBe(true)
    expect(along([box('c', 'clamp', [2.8, 1.19, 0], [0.4, 1, 2])])).toBe(false)
    expect(along([box('c', 'clamp', [2.8, -0.21, 0], [0.4, 1, 2])])).toBe(true)
    expect(along([box('c', 'clamp', [2.8, -0.19, 0], [0.4, 1, 2])])).toBe(false)
    expect(across([box('c', 'clamp', [4.21, 1.8, 0], [1, 0.4, 2])])).toBe(true)
    expect(across([box('c', 'clamp', [4.19, 1.8, 0], [1, 0.4, 2])])).toBe(false)
    expect(across([box('c', 'clamp', [2.79, 1.8, 0], [1, 0.4, 2])])).toBe(true)
    expect(across([box('c', 'clamp', [2.81, 1.8, 0], [1, 0.4, 2])])).toBe(false)
  })

  it('so is a round one', () => {
    const post = (y: number, length: number) => ({
      ...box('p', 'clamp', [3, y, 0], [1, 1, 1]),
      shape: 'cylinder' as const,
      axis: 'Z' as const,
      diameter: 0.4,
      length,
    })
    expect(along([post(1.41, 2)])).toBe(true)
    expect(along([post(1.39, 2)])).toBe(false)
    expect(along([post(1, 0.39)])).toBe(true)
    expect(along([post(1, 0.41)])).toBe(false)
  })

  it('offers stand by the seconds, and the share done grows to all but the last part', () => {
    const text = program(
      `${tool(2, 1, 1, 9)}G4 P3.\nG1 Z.2 F10.\nZ-.1\nX3.\nG0 Z.5\nG0 Z2.\n${tool(1, 1, 1)}G98 G81 X1. Y1. Z-.5 R.6 F10.\nX2.\nX3.\nG80\n`,
    )
    const shares: number[] = []
    const found = findSavings(on(text), (share) => shares.push(share) > 0)
    const all = found.offers.length + found.refused
    expect(found.offers.length).toBeGreaterThan(3)
    expect(shares).toEqual(Array.from({ length: all }, (_, n) => (n + 1) / (all + 1)))
    const seconds = found.offers.map((each) => each.seconds)
    expect(seconds).toEqual([...seconds].sort((a, b) => b - a))
    expect(Math.min(...seconds)).toBeGreaterThanOrEqual(0.05)
  })
})
