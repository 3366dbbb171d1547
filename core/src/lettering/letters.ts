import { cosineOf, sineOf } from '../geometry/index.ts'
import { SIMPLEX } from './simplex.ts'

export type Point = readonly [x: number, y: number]
/** A stroke of the pen: from its first point on without lifting. */
export type Stroke = readonly Point[]

/** One character on the base line, in heights of a capital: how far on the next one begins, and its strokes. */
export interface Glyph {
  advance: number
  strokes: readonly Stroke[]
}

const CAPITAL = 21
const BASE = 9
const ORIGIN = 'R'.charCodeAt(0)

function glyphFrom(coded: string): Glyph {
  const at = (index: number) => coded.charCodeAt(index) - ORIGIN
  const left = at(0)
  const strokes: Point[][] = []
  let stroke: Point[] | undefined
  for (let n = 2; n < coded.length; n += 2) {
    if (coded.startsWith(' R', n)) {
      stroke = undefined
      continue
    }
    if (!stroke) {
      stroke = []
      strokes.push(stroke)
    }
    stroke.push([(at(n) - left) / CAPITAL, (BASE - at(n + 1)) / CAPITAL])
  }
  return { advance: (at(1) - left) / CAPITAL, strokes }
}

const moved = (strokes: readonly Stroke[], dx: number, dy: number, scale = 1): Stroke[] =>
  strokes.map((stroke) => stroke.map(([x, y]): Point => [x * scale + dx, y * scale + dy]))

/** Signs of the drawing office that the set lacks, made from those that it has. */
function made(own: ReadonlyMap<string, Glyph>): [string, Glyph][] {
  const of = (character: string) => own.get(character) as Glyph
  const [plus, minus, letterO] = [of('+'), of('-'), of('O')]
  const tilt = 0.28
  return [
    [
      '±',
      {
        advance: plus.advance,
        strokes: [...moved(plus.strokes, 0, 0.15), ...moved(minus.strokes, 0, -0.42)],
      },
    ],
    [
      'Ø',
      {
        advance: letterO.advance,
        strokes: [
          ...letterO.strokes,
          [
            [letterO.advance / 2 - tilt, -0.06],
            [letterO.advance / 2 + tilt, 1.06],
          ],
        ],
      },
    ],
    [
      '×',
      {
        advance: plus.advance,
        strokes: [
          [
            [plus.advance / 2 - 0.3, 0.13],
            [plus.advance / 2 + 0.3, 0.73],
          ],
          [
            [plus.advance / 2 - 0.3, 0.73],
            [plus.advance / 2 + 0.3, 0.13],
          ],
        ],
      },
    ],
  ]
}

const GLYPHS: ReadonlyMap<string, Glyph> = (() => {
  const own = new Map(
    SIMPLEX.map((coded, n) => [n === 95 ? '°' : String.fromCharCode(32 + n), glyphFrom(coded)]),
  )
  for (const [character, glyph] of made(own)) own.set(character, glyph)
  return own
})()

/** The letter of a character; undefined where there is none. */
export const glyphOf = (character: string): Glyph | undefined => GLYPHS.get(character)

/** The characters of a text that there are no letters for, once each, as typed. */
export const lackingIn = (text: string): string[] => [
  ...new Set([...text].filter((character) => !GLYPHS.has(character))),
]

/** One letter of a text that is laid out: where its left edge stands from where the text begins, in heights. */
export interface Letter {
  character: string
  glyph: Glyph
  at: number
}

export interface Laid {
  letters: readonly Letter[]
  /** From the left of the first stroke to the right of the last, in heights. */
  width: number
  /** Lowest and highest point of the strokes from the base line, in heights; 0 and 1 where all are capitals. */
  low: number
  high: number
}

/** How far the strokes of a letter reach from its left edge; a space is as wide as it moves on. */
export const reach = (glyph: Glyph): [number, number] => {
  const xs = glyph.strokes.flatMap((stroke) => stroke.map(([x]) => x))
  return xs.length === 0 ? [0, glyph.advance] : [Math.min(...xs), Math.max(...xs)]
}

/**
 * A text in a row, in heights of a capital: its leftmost stroke begins at 0, on the base line. Characters without a letter
 * leave no room. Spaces at the ends do not count.
 */
export function layText(text: string): Laid {
  const letters: Letter[] = []
  let at = 0
  for (const character of text.trim()) {
    const glyph = GLYPHS.get(character)
    if (!glyph) continue
    letters.push({ character, glyph, at })
    at += glyph.advance
  }
  const [first, last] = [letters[0], letters.at(-1)]
  if (!first || !last) return { letters, width: 0, low: 0, high: 1 }
  const before = reach(first.glyph)[0]
  const ys = letters.flatMap(({ glyph }) => glyph.strokes.flatMap((stroke) => stroke.map(([, y]) => y)))
  return {
    letters: letters.map((letter) => ({ ...letter, at: letter.at - before })),
    width: last.at + reach(last.glyph)[1] - before,
    low: ys.reduce((low, y) => Math.min(low, y), 0),
    high: ys.reduce((high, y) => Math.max(high, y), 1),
  }
}

/**
 * Where a text stands: the lower left of its first letter, degrees counter-clockwise, height of a capital, and how many
 * times as wide as these letters it comes out.
 */
export interface TextPose {
  x: number
  y: number
  angle: number
  height: number
  stretch: number
}

/** A point of the text, in heights from where it begins, where it stands. */
export function poseAt({ x, y, angle, height, stretch }: TextPose, px: number, py: number): Point {
  const [cos, sin] = [cosineOf(angle), sineOf(angle)]
  const [u, v] = [px * height * stretch, py * height]
  return [x + u * cos - v * sin, y + u * sin + v * cos]
}

/** The strokes of a text in a row, where they are cut, in the order of the pen. */
export const textStrokes = (text: string, pose: TextPose): Stroke[] =>
  layText(text).letters.flatMap(({ glyph, at }) =>
    glyph.strokes.map((stroke) => stroke.map(([px, py]) => poseAt(pose, at + px, py))),
  )

/** A circle that a text stands on with its feet. */
export interface TextArc {
  x: number
  y: number
  /** Of the base line. */
  radius: number
  /** Where the middle of the text stands, degrees counter-clockwise from X. */
  at: number
  height: number
  /** With its feet to the centre it is read from outside, clockwise; else from inside, counter-clockwise. */
  reads: 'outside' | 'inside'
}

/** Each letter of a text on a circle, as the pose of a row that has that letter only. */
export function arcPoses(
  text: string,
  { x, y, radius, at, height, reads }: TextArc,
): { letter: Letter; pose: TextPose }[] {
  const { letters, width } = layText(text)
  const way = reads === 'outside' ? -1 : 1
  return letters.map((letter) => {
    const middle = letter.at + letter.glyph.advance / 2
    const turn = at + ((way * (middle - width / 2) * height) / radius) * (180 / Math.PI)
    const upright = turn + way * 90
    const [footX, footY] = [x + radius * cosineOf(turn), y + radius * sineOf(turn)]
    const half = (letter.glyph.advance / 2) * height
    return {
      letter,
      pose: {
        x: footX - half * cosineOf(upright),
        y: footY - half * sineOf(upright),
        angle: upright,
        height,
        stretch: 1,
      },
    }
  })
}

/** The strokes of a text on a circle; letters stay as they are, each upright on its own radius. */
export const arcStrokes = (text: string, arc: TextArc): Stroke[] =>
  arcPoses(text, arc).flatMap(({ letter: { glyph }, pose }) =>
    glyph.strokes.map((stroke) => stroke.map(([px, py]) => poseAt(pose, px, py))),
  )
