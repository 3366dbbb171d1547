import type { ProbeField, ProbeSketch, ProbeTask } from '@dogleg/core/probe'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { frame, type Point } from '../drawing/frame.ts'
import { Dimension, Head, Scribe, Words } from '../drawing/marks.tsx'
import { plan } from '../drawing/plan.ts'
import { ProbeMark } from '../drawing/probe-mark.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 470
const HEIGHT = 480

interface ProbeDrawingProps {
  sketch: ProbeSketch
  task: ProbeTask
  unit: LengthUnit
  lit: ProbeField | undefined
}

type Place = (u: number, z: number) => Point

/** A probe call from the side, to scale: where the probe stands, the gap, how far it searches, how deep, and its body. */
export function ProbeDrawing({ sketch, task, unit, lit }: ProbeDrawingProps) {
  const { start, ends, meets, bodies, top, clear, reach, body, down } = sketch
  const us = [
    start.u - body,
    ends.u + body / 2,
    ...bodies.flatMap(({ from, to }) => [Math.max(from, -4 * body), Math.min(to, 4 * body)]),
  ]
  const zs = [start.z, ends.z, clear, start.z + 1.35 * reach, ...bodies.map(({ bottom }) => bottom)]
  const on = plan(
    { x: Math.min(...us), y: Math.min(...zs) },
    { x: Math.max(...us), y: Math.max(...zs) },
    { left: 92, top: 24, width: WIDTH - 140, height: HEIGHT - 110 },
  )
  const place: Place = (u, z) => on.place({ x: u, y: z })
  const number = (value: number) => formatLength(value, unit)
  const level = place(0, start.z).y
  // Dimensions along the touch lie under the ball; heights lie at the left.
  const along = frame(0, 1, { upright: false, from: place(0, 0).x, to: place(1, 0).x, middle: level })
  const upright = frame(0, 1, { upright: true, from: place(0, 0).y, to: place(0, 1).y, middle: 0 })
  const left = place(Math.min(...us), 0).x
  const arrow = down ? place(ends.u, ends.z) : place(ends.u, ends.z)
  return (
    <CycleSheet label="Side view of the probe call" width={WIDTH} height={HEIGHT} tallest="max-h-[30rem]">
      {bodies.map(({ from, to, bottom, top: high }) => {
        const [a, b] = [place(Math.max(from, -9 * body), high), place(Math.min(to, 9 * body), bottom)]
        return (
          <rect
            key={from}
            x={Math.max(0, a.x)}
            y={a.y}
            width={Math.min(WIDTH, b.x) - Math.max(0, a.x)}
            height={Math.max(0, b.y - a.y)}
            fill="var(--color-scribe)"
            fillOpacity={0.13}
            stroke="var(--color-scribe)"
            strokeWidth={2}
          />
        )
      })}
      <line
        x1={12}
        x2={WIDTH - 12}
        y1={place(0, clear).y}
        y2={place(0, clear).y}
        stroke={lit === 'clearance' ? 'var(--color-brass)' : 'var(--color-scribe-dim)'}
        strokeWidth={lit === 'clearance' ? 3 : 1}
        strokeDasharray="6 6"
      />
      <Words at={{ x: WIDTH - 14, y: place(0, clear).y - 6 }} anchor="end" plain>
        clear height
      </Words>
      <ProbeMark at={ends} sketch={sketch} place={place} dim />
      <ProbeMark at={start} sketch={sketch} place={place} />
      <Scribe from={place(start.u, start.z)} to={arrow} ink="measured" lit={lit === 'search'} />
      <Head at={arrow} dx={down ? 0 : 1} dy={down ? 1 : 0} ink="measured" lit={lit === 'search'} />
      {!down && (
        <>
          <Dimension
            frame={along}
            from={start.u + sketch.radius}
            to={meets.u + sketch.radius}
            v={44}
            ink="measured"
            name="gap"
            label={number(task.gap)}
            lit={lit === 'gap'}
          />
          <Dimension
            frame={along}
            from={start.u}
            to={ends.u}
            v={96}
            ink="measured"
            name="search at most"
            label={number(task.search)}
            lit={lit === 'search'}
          />
        </>
      )}
      {down ? (
        <Dimension
          frame={{ ...upright, place: (z) => ({ x: left, y: place(0, z).y }) }}
          from={top}
          to={start.z - sketch.radius}
          v={0}
          ink="measured"
          name="gap"
          label={number(task.gap)}
          lit={lit === 'gap'}
        />
      ) : (
        <Dimension
          frame={{ ...upright, place: (z) => ({ x: left + 6, y: place(0, z).y }) }}
          from={top}
          to={start.z}
          v={-1}
          base={0}
          ink="measured"
          name="depth"
          label={number(task.depth)}
          lit={lit === 'depth'}
        />
      )}
      <Words at={{ x: 14, y: HEIGHT - 14 }} row={-1} anchor="start" plain>
        {`Stand ${down ? 'over' : 'at'} X ${number(task.x)} Y ${number(task.y)} of the drawing,`}
      </Words>
      <Words at={{ x: 14, y: HEIGHT - 14 }} anchor="start" plain>
        {down
          ? `${number(task.gap)} above the top`
          : `${number(task.gap)} off the face, ball ${number(Math.abs(task.depth))} ${task.depth < 0 ? 'below' : 'above'} the top`}
      </Words>
    </CycleSheet>
  )
}
