import { type OutlinePath, reversed, type Vertex } from './path.ts'

const isNear = (a: Vertex, b: Vertex, within: number) => Math.hypot(a.x - b.x, a.y - b.y) <= within

/** One end of an open line. */
interface End {
  line: number
  at: Vertex
  first: boolean
}

/** Ends that meet, each with its other: only where just two do. At a fork nobody can say which goes on. */
function pairs(lines: readonly OutlinePath[], within: number): Map<string, End> {
  const ends = lines.flatMap(({ vertices }, line): End[] => [
    { line, at: vertices[0] as Vertex, first: true },
    { line, at: vertices.at(-1) as Vertex, first: false },
  ])
  // By cells as large as the tolerance, so that a large drawing takes no longer than its size.
  const cells = new Map<string, End[]>()
  const cellOf = (value: number) => Math.floor(value / within)
  for (const end of ends) {
    const key = `${cellOf(end.at.x)} ${cellOf(end.at.y)}`
    const cell = cells.get(key)
    if (cell) cell.push(end)
    else cells.set(key, [end])
  }
  const near = (of: End) => {
    const found: End[] = []
    for (const dx of [-1, 0, 1])
      for (const dy of [-1, 0, 1])
        for (const other of cells.get(`${cellOf(of.at.x) + dx} ${cellOf(of.at.y) + dy}`) ?? [])
          if (other !== of && isNear(of.at, other.at, within)) found.push(other)
    return found
  }
  const joined = new Map<string, End>()
  for (const end of ends) {
    const [other, ...more] = near(end)
    if (other && more.length === 0 && near(other).length === 1) joined.set(`${end.line} ${end.first}`, other)
  }
  return joined
}

/** A line with another behind it; the end that both have is kept once. */
const followed = (a: readonly Vertex[], b: readonly Vertex[]): Vertex[] => [...a.slice(0, -1), ...b]

/**
 * Open lines whose ends meet within a tolerance as one line, closed where its own two ends do. At a place where more than
 * two ends meet nothing is joined. Closed lines come back as they are, in the order of the drawing.
 */
export function joined(paths: readonly OutlinePath[], within: number): OutlinePath[] {
  const isOpen = ({ closed, vertices }: OutlinePath) => !closed && vertices.length > 1
  const lines = paths.filter(isOpen)
  const other = pairs(lines, within)
  const used = new Set<number>()
  const onFrom = (line: number, first: boolean) => other.get(`${line} ${first}`)
  const chain = (start: number): OutlinePath => {
    // Back to where it begins, or once round.
    let [line, first] = [start, true]
    const seen = new Set([start])
    for (let back = onFrom(line, first); back && !seen.has(back.line); back = onFrom(line, first)) {
      seen.add(back.line)
      line = back.line
      first = !back.first
    }
    const begin = line
    let way = first ? (lines[line] as OutlinePath) : reversed(lines[line] as OutlinePath)
    used.add(line)
    let out = onFrom(line, !first)
    while (out && !used.has(out.line)) {
      const next = lines[out.line] as OutlinePath
      way = { vertices: followed(way.vertices, (out.first ? next : reversed(next)).vertices), closed: false }
      used.add(out.line)
      out = onFrom(out.line, !out.first)
    }
    const [a, b] = [way.vertices[0] as Vertex, way.vertices.at(-1) as Vertex]
    const round = out?.line === begin && way.vertices.length > 2 && isNear(a, b, within)
    return round ? { vertices: way.vertices.slice(0, -1), closed: true } : way
  }
  const result: OutlinePath[] = []
  let index = -1
  for (const path of paths) {
    if (!isOpen(path)) {
      if (path.closed) result.push(path)
      continue
    }
    index++
    if (!used.has(index)) result.push(chain(index))
  }
  return result
}
