import type { ProbeSketch, ProbeTask } from '@dogleg/core/probe'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { frame, type Point } from '../drawing/frame.ts'
import { Dimension, Head, Scribe, Words } from '../drawing/marks.tsx'
import { plan } from '../drawing/plan.ts'
import { ProbeMark } from '../drawing/probe-mark.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 700
const HEIGHT = 300

interface ApproachDrawingProps {
  sketch: ProbeSketch
  task: ProbeTask
  /** How far past the surface it searches. */
  past: number
  unit: LengthUnit
  lit: string | undefined
}

/** One touch from the side, to scale: where the probe stands, the gap, how far past the surface it searches, its body. */
export function ApproachDrawing({ sketch, task, past, unit, lit }: ApproachDrawingProps) {
  const { start, meets, ends, bodies, top, reach, body, radius, down } = sketch
  const zs = [start.z, ends.z, start.z + 1.3 * reach, ...bodies.map(({ bottom }) => bottom)]
  const us = [start.u - body, ends.u + 1.6 * body]
  const on = plan(
    { x: Math.min(...us), y: Math.min(...zs) },
    { x: Math.max(...us), y: Math.max(...zs) },
    { left: 170, top: 12, width: WIDTH - 340, height: HEIGHT - 60 },
  )
  const place = (u: number, z: number): Point => on.place({ x: u, y: z })
  const say = (value: number) => formatLength(value, unit)
  const level = HEIGHT - 42
  const along = frame(0, 1, { upright: false, from: place(0, 0).x, to: place(1, 0).x, middle: level })
  const upright = frame(0, 1, { upright: true, from: place(0, 0).y, to: place(0, 1).y, middle: 0 })
  const side = place(Math.min(...us), 0).x - 24
  const tall = { ...upright, place: (z: number) => ({ x: side, y: place(0, z).y }) }
  const arrow = place(ends.u, ends.z)
  return (
    <CycleSheet label="Side view of one touch" width={WIDTH} height={HEIGHT} tallest="max-h-full">
      {bodies.map(({ from, to, bottom, top: high }) => {
        const [a, b] = [place(from, high), place(to, bottom)]
        return (
          <rect
            key={from}
            x={Math.max(0, a.x)}
            y={a.y}
            width={Math.max(0, Math.min(WIDTH, b.x) - Math.max(0, a.x))}
            height={Math.max(0, Math.min(HEIGHT, b.y) - a.y)}
            fill="var(--color-scribe)"
            fillOpacity={0.13}
            stroke="var(--color-scribe)"
            strokeWidth={2}
          />
        )
      })}
      <ProbeMark at={ends} sketch={sketch} place={place} dim />
      <ProbeMark at={start} sketch={sketch} place={place} />
      <Scribe from={place(start.u, start.z)} to={arrow} ink="measured" lit={lit === 'past'} />
      <Head at={arrow} dx={down ? 0 : 1} dy={down ? 1 : 0} ink="measured" lit={lit === 'past'} />
      {!down && (
        <>
          <Dimension
            frame={along}
            from={start.u + radius}
            to={meets.u + radius}
            v={0}
            base={-12}
            ink="measured"
            name="gap"
            label={say(task.gap)}
            lit={lit === 'gap'}
            aside={-60}
          />
          <Dimension
            frame={along}
            from={meets.u + radius}
            to={ends.u + radius}
            v={0}
            base={-12}
            ink="measured"
            name="past it"
            label={say(past)}
            lit={lit === 'past'}
            aside={70}
          />
          <Dimension
            frame={tall}
            from={top}
            to={start.z}
            v={0}
            ink="measured"
            name="depth"
            label={say(task.depth)}
            lit={lit === 'depth'}
          />
        </>
      )}
      {down && (
        <Dimension
          frame={tall}
          from={top}
          to={start.z - radius}
          v={0}
          ink="measured"
          name="gap"
          label={say(task.gap)}
          lit={lit === 'gap'}
        />
      )}
      <Words
        at={{ x: WIDTH - 16, y: place(0, top).y - 6 }}
        anchor="end"
        bold={lit === 'top'}
        ink={lit === 'top' ? 'measured' : 'part'}
      >
        {`Z ${say(top)}`}
      </Words>
    </CycleSheet>
  )
}
