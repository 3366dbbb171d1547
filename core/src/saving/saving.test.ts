import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth, times } from '../../testing/depth.ts'
import { testMill } from '../program/testing.ts'
import { type Body, type Layout, type ProveCase, prove } from '../prove/index.ts'
import { findSavings } from './find.ts'
import { box, offer, offersOf, on, program, tool } from './testing.ts'

/** From rest to rest on an axis of the test mill: d/v + v/a, or 2 sqrt(d/a). */
const rest = (d: number, v: number, a: number) => (d >= (v * v) / a ? d / v + v / a : 2 * Math.sqrt(d / a))

const holes = 'X2. Y1.\nX4. Y1.\nX6. Y1.\nG80\n'

describe('what would save time', () => {
  it('G99 between holes, worth the way up and down again at each', () => {
    const offers = offersOf(`${tool(1, 1, 1)}G98 G81 X1. Y1. Z-.5 R.1 F10.\n${holes}`)
    const found = offer(offers, 'return-plane')
    // Z at 300 in/min and 25 in/s2. Each of four holes is left by 0.6 in instead of 1.5; three are come to at R, without the
    // 0.9 in down; the way home (spindle up, the tip at 11) begins at 0.1 instead of 1.
    const z = (d: number) => rest(d, 5, 25)
    expect(found?.seconds).toBeCloseTo(4 * (z(1.5) - z(0.6)) + 3 * z(0.9) - (z(10.9) - z(10)), 3)
    expect(found?.after).toContain('G99 G81')
  })

  it('a cycle after it that leaned on G98 still has it', () => {
    const body = `${tool(1, 1, 1)}G98 G81 X1. Y1. Z-.5 R.1 F10.\n${holes}G0 Z1.\nG83 X2. Y3. Z-.5 R.1 Q.1 F10.\nX4.\nG80\n`
    const found = offersOf(body).filter(({ code }) => code === 'return-plane')
    expect(found.map(({ after }) => /G83 G98/.test(after)).sort()).toEqual([false, true])
  })

  it('is not G99 where something stands between the holes, nor where it comes nearer than the clearance', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 12, max: 40 }), (tall, r) => {
        const [height, level] = [tall / 50 + 0.003, r / 50]
        const wall = box('clamp', 'clamp', [2.8, -2, 0], [0.4, 8, height])
        const offers = offersOf(`${tool(1, 1, 1, 3)}G98 G81 X1. Y1. Z-.5 R${level} F10.\n${holes}`, [wall])
        expect(offer(offers, 'return-plane') !== undefined).toBe(height + 0.1 < level)
        const lower = offer(offers, 'r-plane')
        if (lower) expect(prove(on(lower.after, [wall])).verdict).toBe(prove(on(program(''), [wall])).verdict)
      }),
      depth(20, 400),
    )
  })

  it('offers a tap 2 at most on a spindle that nobody has timed, and says how to more', () => {
    const { dynamics } = testMill
    const untimed = { ...testMill, dynamics: dynamics && { ...dynamics, spindleTimed: false } }
    const of = on(program(`${tool(3, 1, 1)}S300\nG98 G84 X1. Y1. Z-.5 R.2 F15.\nG80\n`))
    const [offer] = findSavings({ ...of, machine: untimed }).offers.filter(
      ({ code }) => code === 'tap-retract',
    )
    expect(offer?.after).toMatch(/G84 .* J2\n/)
    expect(offer?.mind).toContain('two timed holes')
  })

  it('finds each loss of time, and the change does what it says', () => {
    const slips: [string, string, RegExp | string][] = [
      ['tap-retract', `${tool(3, 1, 1)}S300\nG98 G84 X1. Y1. Z-.5 R.2 F15.\nG80\n`, /G84 .* J9\n/],
      ['r-plane', `${tool(1, 1, 1)}G99 G81 X1. Y1. Z-.5 R.8 F10.\nG80\n`, 'R0.1'],
      ['initial-level', `${tool(1, 1, 1, 9)}G98 G81 X1. Y1. Z-.5 R.1 F10.\nX2.\nG80\n`, 'Z0.1'],
      ['rapid-pieces', `${tool(2, 1, 1)}Z.1\nG1 Z-.1 F10.\nX3.\nG0 Z.5\nG0 Z2.\n`, /X3\.\nG0 Z2\./],
      ['air-cut', `${tool(2, 1, 1, 3)}G1 Z-.1 F10.\nX3.\n`, 'G0 Z0.1\nG1 Z-.1'],
      ['air-cut', `${tool(2, 1, 1)}G1 Z.2 F10.\nX5. F20.\nZ-.1\nX6.\nG0 Z1.\n`, /G0 X5\. F20\.\nG1 Z-\.1/],
      ['dwell', `${tool(2, 1, 1)}G4 P3.\nG1 Z-.1 F10.\nX3.\n`, 'M8\nG1'],
      [
        'hole-order',
        `${tool(1, 1, 1)}G99 G81 X1. Y1. Z-.5 R.1 F10. (A)\nX7. (B)\nX2. (C)\nX6. (D)\nG80\n`,
        'X2. Y1. (C)\nX6. Y1. (D)\nX7. Y1. (B)',
      ],
      [
        'tool-order',
        `${tool(2, 1, 1)}G1 Z-.1 F9.\nX2.\nG0 Z1.\n${tool(1, 4, 1)}G81 Z-.5 R.1 F9.\nG80\n${tool(2, 6, 3)}G1 Z-.1 F9.\nX7.\nG0 Z1.\n`,
        /Z1\.\nG90 G54 G0 X6\./,
      ],
    ]
    for (const [code, body, changed] of slips) {
      const offers = offersOf(body).filter((each) => each.code === code)
      expect(offers.length, `${code}: ${body}`).toBeGreaterThan(0)
      if (typeof changed === 'string')
        expect(offers.map(({ after }) => after).join('|'), code).toContain(changed)
      else
        expect(
          offers.some(({ after }) => changed.test(after)),
          `${code} ${offers[0]?.after}`,
        ).toBe(true)
    }
  })

  it('keeps the probe on between two features', () => {
    const touch = (x: number) =>
      `G65 P9810 X${x}. Y2. F120.\nG65 P9810 Z.4 F120.\nG65 P9811 Z0.\nG65 P9810 Z1. F120.\n`
    const body = `T20 M6\nG90 G54 G0 X1. Y2.\nG43 H20 Z2.\nG65 P9832\n${touch(1)}G65 P9833\nG0 X4. Y2.\nG65 P9832\n${touch(4)}G65 P9833\n`
    const found = offer(offersOf(body), 'probe-on')
    // Once less on and off, two seconds as they are computed; three inches at 120 in/min instead of at rapid.
    expect(found?.seconds).toBeCloseTo(2 + rest(3, 10, 50) - rest(3, 2, 50), 1)
    expect(found?.after.match(/P9832/g)).toHaveLength(1)
    expect(found?.after).toContain('G65 P9810 X4. Y2. F120.')
  })

  it('leaves alone what has a reason, or what it cannot know', () => {
    const silent: [string, string, string, Body[]?][] = [
      ['a dwell at the bottom of a cut', 'dwell', `${tool(2, 1, 1)}G1 Z-.1 F10.\nG4 P1.\nG0 Z1.\n`],
      [
        'a dwell that a loop runs through',
        'dwell',
        `${tool(2, 1, 1)}M97 P100 L2\nG0 Z1.\nM30\nN100 G4 P1.\nM99\n`,
      ],
      ['the R plane of a tap', 'r-plane', `${tool(3, 1, 1)}G99 G84 X1. Y1. Z-.5 R.8 F50.\nG80\n`],
      ['pecks that start from R', 'r-plane', `${tool(1, 1, 1)}G99 G83 X1. Y1. Z-.5 R.8 Q.15 F10.\nG80\n`],
      [
        'holes in steps',
        'hole-order',
        `${tool(1, 1, 1)}G91 G99 G81 X1. Z-.6 R-.9 F9.\nX5.\nX-4.\nX2.\nG80 G90\n`,
      ],
      [
        'holes with words of their own',
        'hole-order',
        `${tool(1, 1, 1)}G99 G81 X1. Y1. Z-.5 R.1 F9.\nX7. Z-.3\nX2.\nX6.\nG80\n`,
      ],
      [
        'holes by expressions',
        'hole-order',
        `${tool(1, 1, 1)}#100=7.\nG99 G81 X1. Y1. Z-.5 R.1 F9.\nX#100\nX2.\nX6.\nG80\n`,
      ],
      [
        'holes that lie in the best order',
        'hole-order',
        `${tool(1, 1, 1)}G99 G81 X1. Y1. Z-.5 R.1 F9.\n${holes}`,
      ],
      [
        'a tool that comes back to what was cut between',
        'tool-order',
        `${tool(2, 1, 1)}G1 Z-.1 F9.\nX2.\nG0 Z1.\n${tool(1, 4, 1)}G81 Z-.5 R.1 F9.\nG80\n${tool(2, 4, 1)}G1 Z-.1 F9.\nX5.\nG0 Z1.\n`,
      ],
      ['one hole under G98', 'return-plane', `${tool(1, 1, 1)}G98 G81 X1. Y1. Z-.5 R.1 F10.\nG80\n`],
      [
        'a tap that comes out as fast as it may',
        'tap-retract',
        `${tool(3, 1, 1)}G98 G84 X1. Y1. Z-.5 R.2 F50. J3\nG80\n`,
      ],
      [
        'a cut beside the part, nearer than the tool',
        'air-cut',
        `${tool(2, 1, 1)}G0 X-.3 Y1.\nG0 Z-.2\nG1 Y3. F20.\nG0 Z1.\n`,
      ],
      [
        'a probe that is put away in between',
        'probe-on',
        `T20 M6\nG90 G54 G0 X1. Y2.\nG43 H20 Z2.\nG65 P9832\nG65 P9811 Z0.\nG65 P9833\n${tool(2, 1, 1)}T20 M6\nG43 H20 Z2.\nG65 P9832\nG65 P9811 Z0.\nG65 P9833\n`,
      ],
      [
        'the level that a clamp asks for',
        'initial-level',
        `${tool(1, 1, 1, 1)}G98 G81 X1. Y1. Z-.5 R.1 F10.\nX6.\nG80\n`,
        [box('clamp', 'clamp', [3, 0, 0], [1, 2, 0.95])],
      ],
    ]
    for (const [name, code, body, bodies] of silent)
      expect(
        offersOf(body, bodies).map((each) => each.code),
        name,
      ).not.toContain(code)
  })

  it('writes heights in the unit of the program, and none where it is turned', () => {
    const mm = program(
      `T1 M6\nG21 G90 G54 G0 X25. Y25.\nS1000 M3\nG43 H1 Z25. M8\nG99 G81 X25. Y25. Z-12. R20. F250.\nG80\nG20\n`,
    )
    // 0.1 in is 2.54 mm; the profile prints three digits.
    expect(findSavings(on(mm)).offers.find(({ code }) => code === 'r-plane')?.after).toContain('R2.54 ')
    const turned = offersOf(`${tool(1, 1, 1)}G68 X0. Y0. R1.\nG99 G81 X1. Y1. Z-.5 R.8 F10.\nG80\nG69\n`)
    expect(offer(turned, 'r-plane')).toBeUndefined()
  })

  it('a lower R plane is worth the feed through air at each hole', () => {
    const found = offer(offersOf(`${tool(1, 1, 1)}G99 G81 X1. Y1. Z-.5 R.6 F10.\n${holes}`), 'r-plane')
    // Four holes, half an inch each at 10 in/min: 12 s. Each way up ends half an inch lower, the first way down is longer.
    const z = (d: number) => rest(d, 5, 25)
    const up = z(1.1) - z(0.6)
    const down = z(0.9) - z(0.4)
    const home = z(10.9) - z(10.4)
    expect(found?.seconds).toBeCloseTo(12 + 4 * up - down - home, 1)
  })

  it('on a lathe looks for waiting only', () => {
    const turning: ProveCase = {
      ...on('O1\nG20 G40 G80 G99\nT0101\nG97 S800 M3\nG4 P2.\nG0 X1. Z.1\nG1 Z-1. F.01\nM30\n'),
      machine: { ...testMill, kind: 'lathe', axes: { ...testMill.axes, Y: null } },
      layout: { unit: 'inch', bodies: [] },
    }
    expect(findSavings(turning).offers.map(({ code }) => code)).toEqual(['dwell'])
  })

  it('offers nothing that changes a cut, or that Prove says more against', () => {
    const move = fc.oneof(
      fc
        .tuple(fc.constantFrom('G0', 'G1'), fc.integer({ min: 0, max: 8 }), fc.integer({ min: 0, max: 4 }))
        .map(([g, x, y]) => `${g} X${x}. Y${y}. F20.`),
      fc.constantFrom('G0 Z1.', 'G0 Z.3', 'G1 Z.2 F15.', 'G1 Z-.2 F5.', 'G4 P2.', 'G0 Z2.'),
      fc
        .tuple(
          fc.constantFrom('G98', 'G99'),
          fc.integer({ min: 1, max: 9 }),
          fc.integer({ min: 0, max: 8 }),
          fc.integer({ min: 0, max: 8 }),
        )
        .map(([g, r, a, b]) => `${g} G81 X${a}. Y2. Z-.4 R.${r} F9.\nX${b}. Y3.\nX1.\nX5. Y1.\nG80`),
    )
    const stretch = fc
      .tuple(fc.integer({ min: 1, max: 2 }), fc.array(move, { minLength: 1, maxLength: 6 }))
      .map(([t, moves]) => `${tool(t, 1, 1)}${moves.join('\n')}\nG0 Z1.\n`)
    const clamp = fc
      .tuple(fc.integer({ min: 0, max: 7 }), fc.integer({ min: 0, max: 3 }), fc.integer({ min: 1, max: 9 }))
      .map(([x, y, h]) => box('clamp', 'clamp', [x, y, 0], [0.6, 0.6, h / 10]))
    let offered = 0
    fc.assert(
      fc.property(
        fc.array(stretch, { minLength: 1, maxLength: 3 }),
        fc.array(clamp, { maxLength: 2 }),
        (parts, clamps) => {
          const of = on(program(parts.join('')), clamps)
          const before = prove(of)
          const said = (severity: string, { findings }: typeof before) =>
            findings.filter((each) => each.severity === severity).length
          // Deepest at each place at the ends of feed moves below the top, seen from outside the finders.
          const cut = ({ program: { motion } }: typeof before) => {
            const deep = new Set<string>()
            for (let row = 0; row < motion.count; row++)
              if (motion.kind[row] === 1 && (motion.z[row] as number) < 0)
                deep.add([motion.x[row], motion.y[row], motion.z[row]].join())
            return [...deep].sort()
          }
          for (const { after, seconds } of findSavings(of).offers) {
            offered++
            const next = prove({ ...of, text: after })
            expect(before.time.total - next.time.total).toBeCloseTo(seconds, 6)
            expect(said('stop', next)).toBeLessThanOrEqual(said('stop', before))
            expect(said('look', next)).toBeLessThanOrEqual(said('look', before))
            expect(cut(next)).toEqual(cut(before))
          }
        },
      ),
      depth(20, 400),
    )
    expect(offered).toBeGreaterThan(times(10, 400))
  })

  it('looks at nothing that needs a part where none is placed, and takes any text', () => {
    const bare = {
      ...on(program(`${tool(1, 1, 1)}G98 G81 X1. Y1. Z-.5 R.8 F10.\n${holes}`)),
      layout: { unit: 'inch', bodies: [] } as Layout,
    }
    const found = findSavings(bare)
    expect(found.placed).toBe(false)
    expect(offer(found.offers, 'return-plane')).toBeUndefined()
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), (text) => {
        findSavings(on(text))
      }),
      depth(60, 600),
    )
    expect(findSavings(on(program(`${tool(2, 1, 1)}G4 P1.\n`)), () => false).cancelled).toBe(true)
  })
})
