import { centreOf, type OutlinePath, type Vertex } from '../../outline/index.ts'
import { fixedDigits, type LengthUnit } from '../../quantity/index.ts'

/** The lines of an outline as a flat program: each is cut at one depth, arcs stay arcs. Lengths and feeds in `unit`. */
export function outlineProgram(
  paths: readonly OutlinePath[],
  { unit, depth, r, feed }: { unit: LengthUnit; depth: number; r: number; feed: number },
): string {
  const say = (value: number) => fixedDigits(value, unit === 'inch' ? 4 : 3)
  const lines = [unit === 'inch' ? 'G20' : 'G21', 'G90', `G0 Z${say(r)}`]
  for (const { vertices, closed } of paths) {
    const [first] = vertices
    if (!first || vertices.length < 2) continue
    lines.push(`G0 X${say(first.x)} Y${say(first.y)}`, `G1 Z${say(-depth)} F${say(feed / 2)}`)
    const way = closed ? [...vertices, first] : vertices
    way.slice(1).forEach((to, n) => {
      const from = way[n] as Vertex
      const { bulge = 0 } = from
      const arc = Math.abs(bulge) > 1e-9
      const [i, j] = arc ? centreOf(from, to, bulge) : [0, 0]
      lines.push(
        `${arc ? (bulge > 0 ? 'G3' : 'G2') : 'G1'} X${say(to.x)} Y${say(to.y)}${arc ? ` I${say(i)} J${say(j)}` : ''}${n === 0 ? ` F${say(feed)}` : ''}`,
      )
    })
    lines.push(`G0 Z${say(r)}`)
  }
  return `${lines.join('\n')}\n`
}
