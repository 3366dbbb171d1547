import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { endOf, ROW } from './motion.ts'
import { read } from './read.ts'
import type { ReadOptions } from './read-options.ts'
import { onMill, rowsOf } from './testing.ts'

/**
 * One program, said in other words, is the same motion. What the words mean is the language's (RS274/NGC, NISTIR 6556,
 * from memory); the arithmetic here is Euclid's.
 */

interface Move {
  kind: number
  end: readonly [number, number, number]
  sweep: number
}

/** Moves that get somewhere, arcs with their turn. */
function motionOf(text: string, options: ReadOptions = onMill()): Move[] {
  const { motion, diagnostics } = read(text, options)
  expect(diagnostics.filter(({ severity }) => severity === 'stop')).toEqual([])
  return rowsOf(motion).flatMap((row) => {
    const kind = motion.kind[row] as number
    if (kind === ROW.EVENT) return []
    const arc = kind === ROW.ARC_CW || kind === ROW.ARC_CCW
    return [
      {
        kind,
        end: endOf(motion, row),
        sweep: arc ? (motion.arcs[6 * (motion.aux[row] as number) + 3] as number) : 0,
      },
    ]
  })
}

function expectSame(a: readonly Move[], b: readonly Move[], within = 1e-9) {
  expect(a.map(({ kind }) => kind)).toEqual(b.map(({ kind }) => kind))
  for (const [n, { end, sweep }] of a.entries()) {
    const other = b[n] as Move
    for (const axis of [0, 1, 2] as const)
      expect(Math.abs(end[axis] - other.end[axis])).toBeLessThanOrEqual(within)
    expect(Math.abs(sweep - other.sweep)).toBeLessThanOrEqual(1e-7)
  }
}

/** Thousandths, so that every way of writing them is exact. */
const thousandths = fc.integer({ min: -3000, max: 3000 })
const place = fc.tuple(thousandths, thousandths, fc.integer({ min: -500, max: 500 }))
const step = fc.record({
  to: place,
  as: fc.constantFrom('G0' as const, 'G1' as const, 'half' as const, 'hole' as const),
})
const path = fc.array(step, { minLength: 1, maxLength: 12 })
interface Step {
  to: readonly [number, number, number]
  as: 'G0' | 'G1' | 'half' | 'hole'
}

const START = '\nS500 M3\nF20.\n'
const say = (value: number) => (value / 1000).toFixed(3)
const inches = ([x, y, z]: readonly number[]) =>
  `X${say(x as number)} Y${say(y as number)} Z${say(z as number)}`

/** Straight moves, half circles about the middle between two places, holes: in absolute inches. */
function absolute(steps: readonly Step[], words: (place: readonly number[]) => string = inches): string {
  let at = [0, 0, 0]
  const lines = steps.map(({ to, as }) => {
    const from = at
    at = [...to]
    if (as === 'half' && (from[0] !== to[0] || from[1] !== to[1])) {
      const [i, j] = [(to[0] - (from[0] as number)) / 2, (to[1] - (from[1] as number)) / 2]
      return `G2 ${words(to)} I${(i / 1000).toFixed(4)} J${(j / 1000).toFixed(4)}`
    }
    if (as !== 'hole') return `${as === 'half' ? 'G1' : as} ${words(to)}`
    const [x, y, z] = to
    at = [x, y, Math.max(from[2] as number, z + 100)]
    return `G98 G81 ${words([x, y, z]).replace(/Z\S+/, `Z${say(z)}`)} R${say(z + 100)}\nG80`
  })
  return `G20 G90 G0 X0. Y0. Z0.${START}${lines.join('\n')}\nM30\n`
}

describe('the same program', () => {
  it('in G91 as in G90', () => {
    fc.assert(
      fc.property(path, (steps) => {
        const straight = steps.map(({ to, as }) => ({
          to,
          as: as === 'G0' ? ('G0' as const) : ('G1' as const),
        }))
        let at: readonly number[] = [0, 0, 0]
        const lines = straight.map(({ to, as }) => {
          const by = to.map((value, axis) => value - (at[axis] as number))
          at = to
          return `${as} ${inches(by)}`
        })
        const incremental = `G20 G90 G0 X0. Y0. Z0.${START}G91\n${lines.join('\n')}\nM30\n`
        expectSame(motionOf(incremental), motionOf(absolute(straight)))
      }),
    )
  })

  it('in mm as in inches (25.4 exactly), cycles and arcs with it', () => {
    // Thousandths of an inch are ten-thousandths of a mm times 254.
    const mm = (text: string) =>
      text.replace('G20', 'G21').replace(/([XYZRIJF])(-?[\d.]+)/g, (_, letter, digits) => {
        const tenThousandths = Math.round(Number(digits) * 10_000) * 254
        return `${letter}${(tenThousandths / 100_000).toFixed(5)}`
      })
    fc.assert(
      fc.property(path, (steps) => {
        const text = absolute(steps)
        expectSame(motionOf(mm(text)), motionOf(text))
        expectSame(
          motionOf(mm(text), onMill({ unit: 'mm' })).map((move) => ({
            ...move,
            end: move.end.map((value) => value / 25.4) as unknown as Move['end'],
          })),
          motionOf(text),
        )
      }),
    )
  })

  it('with part zero moved by G52 as with every word moved', () => {
    fc.assert(
      fc.property(path, place, (steps, by) => {
        const shift = ([x, y, z]: readonly number[]) =>
          inches([x, y, z].map((value, axis) => (value as number) + (by[axis] as number)))
        const shifted = absolute(steps).replace('G20 ', `G20 G52 ${inches(by)}\n`)
        const written = absolute(steps, shift)
          .replace('X0. Y0. Z0.', shift([0, 0, 0]))
          // The R plane and the bottom of a hole are heights too.
          .replace(/(G81 X\S+ Y\S+) Z(\S+) R(\S+)/g, (_, xy, z, r) => {
            const up = (word: string) => say(Math.round(Number(word) * 1000) + by[2])
            return `${xy} Z${up(z)} R${up(r)}`
          })
        expectSame(motionOf(shifted), motionOf(written))
      }),
    )
  })

  it('turned by G68 as with every place turned about the point', () => {
    fc.assert(
      fc.property(path, place, fc.integer({ min: -1800, max: 1800 }), (steps, [cx, cy], tenths) => {
        // First somewhere else: where it stood before the turning is turned by nothing.
        const away: Step = { to: [9000, 9000, 1000], as: 'G0' }
        const straight = [away, ...steps.map(({ to, as }) => ({ to, as: as === 'half' ? 'G1' : as }) as Step)]
        const plain = motionOf(absolute(straight))
        const turned = motionOf(
          absolute(straight).replace(
            START,
            `${START}G68 X${say(cx)} Y${say(cy)} R${(tenths / 10).toFixed(1)}\n`,
          ),
        )
        const angle = (tenths / 10) * (Math.PI / 180)
        const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
        const expected = plain.map(({ kind, end: [x, y, z], sweep }, n) => {
          // The first goes to zero before the turning begins.
          if (n === 0) return { kind, end: [x, y, z] as const, sweep }
          const [dx, dy] = [x - cx / 1000, y - cy / 1000]
          const end = [cx / 1000 + dx * cos - dy * sin, cy / 1000 + dx * sin + dy * cos, z] as const
          return { kind, end, sweep }
        })
        expectSame(turned, expected)
      }),
    )
  })

  it('called as a subprogram, counted by a loop, or in a macro, as written out', () => {
    fc.assert(
      fc.property(
        fc.array(place, { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 1, max: 4 }),
        (places, times) => {
          const body = places.map((by) => `G1 ${inches(by)}`).join('\n')
          const head = `G20 G90 G0 X0. Y0. Z0.${START}G91\n`
          const written = motionOf(`${head}${`${body}\n`.repeat(times)}M30\n`)
          const local = `${head}M97 P100 L${times}\nM30\nN100\n${body}\nM99\n`
          const apart = `${head}M98 P7 L${times}\nM30\nO7\n${body}\nM99\n`
          const loop = `${head}#1=0\nWHILE [#1 LT ${times}] DO1\n${body}\n#1=#1+1\nEND1\nM30\n`
          const jump = `${head}#1=0\nN5\n${body}\n#1=#1+1\nIF [#1 LT ${times}] GOTO 5\nM30\n`
          const macro = `${head}G65 P7 L1 A${times}.\nM30\nO7\n#2=0\nWHILE [#2 LT #1] DO1\n${body}\n#2=#2+1\nEND1\nM99\n`
          for (const text of [local, apart, loop, jump, macro]) expectSame(motionOf(text), written)
        },
      ),
    )
  })

  it('with numbers as expressions, in lower case, with spaces, comments and block numbers', () => {
    fc.assert(
      fc.property(path, fc.infiniteStream(fc.nat(5)), (steps, choices) => {
        const text = absolute(steps)
        const other = text.replace(/([XYZ])(-?[\d.]+)/g, (word, letter: string, digits: string) => {
          const value = Number(digits)
          switch (choices.next().value) {
            case 0:
              return `${letter}[${digits}]`
            case 1:
              return `${letter}[${(value + 1).toFixed(3)}-1.]`
            case 2:
              return `${letter.toLowerCase()} ${digits}`
            case 3:
              return `${letter}${digits} (${letter} TO ${digits})`
            case 4:
              return `${letter}-[${(-value).toFixed(3)}]`
            default:
              return word
          }
        })
        const numbered = other
          .split('\n')
          .map((line, n) => (line === '' ? '' : `N${10 * (n + 1)} ${line}`))
          .join('\r\n')
        expectSame(motionOf(numbered), motionOf(text))
      }),
    )
  })

  it('with an R that a sum rounds beside the height where the tool is: no move of nothing', () => {
    // 1.342 - 1 is 0.342 but for 6e-17 in any arithmetic by IEEE 754: the tool is at R already, and a bottom at R is not above it.
    const lines = (r: string, bottom: string) =>
      `G20 G90 G0 X0. Y0. Z0.342${START}G98 G81 X0. Y0. Z${bottom} R${r}\nX1. Y[1.342-1.]\nX1. Y.342\nG80\nM30\n`
    expectSame(motionOf(lines('[1.342-1.]', '0.242')), motionOf(lines('0.342', '0.242')))
    expectSame(motionOf(lines('0.342', '[1.342-1.]')), motionOf(lines('0.342', '0.342')))
    expectSame(motionOf(lines('[1.342-1.]', '0.342')), motionOf(lines('0.342', '0.342')))
  })

  it('with a grid of holes as their moves written out', () => {
    fc.assert(
      fc.property(fc.array(place, { minLength: 1, maxLength: 8 }), fc.boolean(), (places, toR) => {
        const [z, r] = [-0.75, 0.1]
        const cycle = places.map(([x, y], n) =>
          n === 0 ? `${toR ? 'G99' : 'G98'} G81 X${say(x)} Y${say(y)} Z${z} R${r}` : `X${say(x)} Y${say(y)}`,
        )
        const written = places.flatMap(([x, y], n) => [
          `G0 X${say(x)} Y${say(y)}`,
          ...(n === 0 || !toR ? [`Z${r}`] : []),
          `G1 Z${z}`,
          `G0 Z${toR ? r : 1}`,
        ])
        const head = `G20 G90 G0 X9. Y9. Z1.${START}`
        // A move to where it stands is none.
        const real = (moves: Move[]) =>
          moves.filter(
            ({ end }, n) => n === 0 || end.some((value, axis) => value !== moves[n - 1]?.end[axis]),
          )
        expectSame(
          real(motionOf(`${head}${cycle.join('\n')}\nG80\nM30`)),
          real(motionOf(`${head}${written.join('\n')}\nM30`)),
        )
      }),
    )
  })
})
