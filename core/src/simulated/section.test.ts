import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { evenly } from '../../testing/evenly.ts'
import { type Across, flatEnds, freeBall, outsideSection, reachOf, type Section } from './section.ts'

/** A section as a polygon of many corners, to be measured by brute force. */
function polygonOf({ middle, radius, flat }: Section, corners = 4000): Across[] {
  return Array.from({ length: corners }, (_, n): Across => {
    const [y, z] = [
      Math.cos((2 * Math.PI * n) / corners) * radius,
      Math.sin((2 * Math.PI * n) / corners) * radius,
    ]
    if (!flat) return { y: middle.y + y, z: middle.z + z }
    const [ny, nz] = [Math.cos(flat.looks), Math.sin(flat.looks)]
    const over = Math.max(0, y * ny + z * nz - flat.height)
    return { y: middle.y + y - over * ny, z: middle.z + z - over * nz }
  })
}

const anySection = fc
  .record({
    y: evenly(-2, 2),
    z: evenly(-2, 2),
    radius: evenly(0.5, 2),
    share: evenly(0, 1.2),
    looks: evenly(-Math.PI, Math.PI),
  })
  .map(
    ({ y, z, radius, share, looks }): Section => ({
      middle: { y, z },
      radius,
      flat: { height: share * radius, looks },
    }),
  )

describe('a round part with a flat', () => {
  // By hand: a disc of 1 about the origin with a flat on top, 0.6 up; its ends lie 0.8 aside (0.6, 0.8, 1).
  const d: Section = { middle: { y: 0, z: 0 }, radius: 1, flat: { height: 0.6, looks: Math.PI / 2 } }
  it.each([
    [{ y: 0, z: 2 }, 1.4],
    [{ y: 0, z: 0.5 }, -0.1],
    [{ y: 2, z: 0 }, 1],
    [{ y: 0.8, z: 1.6 }, 1],
    // Over the end of the flat, 3-4-5 from it.
    [{ y: 1.1, z: 1 }, 0.5],
    [{ y: 0, z: -3 }, 2],
  ])('%o lies %d outside', (at, far) => {
    expect(outsideSection(d, at)).toBeCloseTo(far, 12)
  })

  it('has its ends, and reaches as far as what looks along it sees', () => {
    const [a, b] = flatEnds(d) ?? []
    expect([a?.y, b?.y].map((y) => y?.toFixed(6)).sort()).toEqual(['-0.800000', '0.800000'])
    expect(reachOf(d, 'z', 1, [-0.1, 0.1])).toBeCloseTo(0.6, 12)
    expect(reachOf(d, 'y', -1, [-0.1, 0.1])).toBeCloseTo(-1, 12)
    expect(reachOf(d, 'y', 1, [0.55, 2])).toBeCloseTo(Math.sqrt(1 - 0.55 ** 2), 12)
    expect(reachOf(d, 'y', 1, [0.61, 2])).toBeUndefined()
    expect(flatEnds({ ...d, flat: null })).toBeUndefined()
  })

  it('is as far away as its outline, point by point', () => {
    fc.assert(
      fc.property(anySection, evenly(-5, 5), evenly(-5, 5), (section, y, z) => {
        const nearest = Math.min(...polygonOf(section).map((at) => Math.hypot(at.y - y, at.z - z)))
        const far = outsideSection(section, { y, z })
        if (far > 0) expect(Math.abs(far - nearest)).toBeLessThan(0.004 * section.radius)
        else expect(-far).toBeLessThan(nearest + 0.004 * section.radius)
      }),
      depth(100, 1000),
    )
  })

  it('lets a ball go as far as going along in small steps finds', () => {
    fc.assert(
      fc.property(
        anySection,
        evenly(-5, 5),
        evenly(-5, 5),
        evenly(0, 2 * Math.PI),
        evenly(-0.2, 0.4),
        (section, y, z, angle, radius) => {
          const direction = { y: Math.cos(angle), z: Math.sin(angle) }
          fc.pre(outsideSection(section, { y, z }) > Math.max(radius, 0) + 0.01)
          const way = freeBall(section, radius, { y, z }, direction)
          const at = (along: number) =>
            outsideSection(section, { y: y + along * direction.y, z: z + along * direction.z })
          let met = Number.POSITIVE_INFINITY
          for (let along = 0; along < 16; along += 0.002)
            if (at(along) < radius - 1e-3) {
              met = along
              break
            }
          if (met < 16) {
            expect(way).toBeLessThanOrEqual(met)
            expect(Math.abs(at(way) - radius)).toBeLessThan(1e-8)
          } else if (way < 16) expect(at(way)).toBeLessThanOrEqual(radius + 1e-8)
        },
      ),
      depth(60, 1000),
    )
  })

  it('reaches as far between two places as its outline, point by point', () => {
    fc.assert(
      fc.property(
        anySection,
        fc.constantFrom('y' as const, 'z' as const),
        fc.constantFrom(1 as const, -1 as const),
        evenly(-4, 4),
        evenly(0.05, 2),
        (section, axis, way, least, wide) => {
          const other = axis === 'y' ? 'z' : 'y'
          // The outline between its corners too: a flat has none.
          const outline = polygonOf(section, 1000).flatMap((at, n, all) => {
            const next = all[(n + 1) % all.length] as Across
            const parts = Math.max(1, Math.ceil(Math.hypot(next.y - at.y, next.z - at.z) / 0.004))
            return Array.from({ length: parts }, (_, k) => ({
              y: at.y + ((next.y - at.y) * k) / parts,
              z: at.z + ((next.z - at.z) * k) / parts,
            }))
          })
          const between = outline.filter((at) => at[other] >= least && at[other] <= least + wide)
          const reach = reachOf(section, axis, way, [least, least + wide])
          if (between.length === 0) return
          const far = Math.max(...between.map((at) => way * at[axis]))
          expect(reach === undefined ? Number.NaN : way * reach).toBeGreaterThan(far - 1e-6)
          expect(reach === undefined ? Number.NaN : way * reach).toBeLessThan(far + 0.15)
        },
      ),
      depth(60, 1000),
    )
  })

  it('lets what touches leave and slide along, and no deeper', () => {
    const touching = { y: 0, z: 0.7 }
    expect(freeBall(d, 0.1, touching, { y: 0, z: -1 })).toBe(0)
    expect(freeBall(d, 0.1, touching, { y: 0, z: 1 })).toBe(Number.POSITIVE_INFINITY)
    expect(freeBall(d, 0.1, touching, { y: 1, z: 0 })).toBe(Number.POSITIVE_INFINITY)
  })
})
