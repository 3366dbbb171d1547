import { type ColletSketch, STOPS, type StopKind } from '@dogleg/core/hold'
import { fixedDigits, formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { Head, Words } from '../drawing/marks.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 470
const HEIGHT = 400
/** SVG units for one radius of the largest bar; the axis; and where z = 0 lies. */
const R = 56
const AXIS = 196
const ORIGIN = 226

/** Fixed shapes, in shares of the largest bar's radius. */
const FACE = 1.5
const BODY = { back: -1.1, outer: 2.35 }
const WALL = 0.34
const TUBE = { inner: 1.08, outer: 1.24, back: -3.6, front: -1.5 }
/** A step turned into soft jaws. */
const SHOULDER = { back: 0.04, face: 0.36, inner: 0.55 }
const BAR = { back: -2.6, face: 2.9 }

const x = (z: number) => ORIGIN + z * R
const path = (points: readonly (readonly [number, number])[], side: 1 | -1) =>
  `M ${points.map(([z, r]) => `${x(z)} ${AXIS - side * r * R}`).join(' L ')} Z`

interface ColletDrawingProps {
  sketch: ColletSketch
  /** The stop that is drawn; none for a collet by itself. */
  stop?: StopKind
  unit: LengthUnit
  /** False while no bars are typed yet: those drawn are a sample, and their numbers are not shown. */
  known?: boolean
  lit?: string | undefined
}

/** A cutaway along the spindle: bar, collet in its cone, draw tube and stop, as they stand for the bar that is shown. */
export function ColletDrawing({ sketch, stop, unit, known = true, lit }: ColletDrawingProps) {
  const { closing, radius, smallest, bar, exaggeration, diameter, moved } = sketch
  const face = BAR.face + bar
  const end = (stop === 'jaw-shoulder' ? SHOULDER.face : BAR.back) + bar
  const onBar = lit === 'diameter' || lit === 'spread'
  return (
    <CycleSheet
      label="Cutaway of bar, collet, draw tube and stop along the spindle"
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-[25rem]"
    >
      <Words at={{ x: 14, y: 24 }} anchor="start" plain>
        spindle left, tool right
      </Words>
      {known && exaggeration > 1 && (
        <Words at={{ x: WIDTH - 14, y: 24 }} anchor="end" plain>
          differences drawn x{fixedDigits(exaggeration, 0)}
        </Words>
      )}
      <line
        x1={10}
        y1={AXIS}
        x2={WIDTH - 10}
        y2={AXIS}
        stroke="var(--color-scribe-dim)"
        strokeDasharray="16 4 3 4"
      />
      {([1, -1] as const).map((side) => (
        <g key={side}>
          {closing === 'jaws' ? (
            <Jaws sketch={sketch} side={side} />
          ) : (
            <Cone sketch={sketch} side={side} lit={lit} />
          )}
        </g>
      ))}
      <rect
        x={x(end)}
        y={AXIS - radius * R}
        width={x(face) - x(end)}
        height={2 * radius * R}
        fill="var(--color-scribe)"
        fillOpacity={0.22}
        stroke={onBar ? 'var(--color-brass)' : 'var(--color-scribe)'}
        strokeWidth={onBar ? 3.5 : 2}
        className="lights-up"
      />
      {stop && <StopMark sketch={sketch} stop={stop} lit={lit === 'stop'} />}
      <line
        x1={x(BAR.face)}
        y1={AXIS - smallest * R - 8}
        x2={x(BAR.face)}
        y2={AXIS + smallest * R + 34}
        stroke="var(--color-brass)"
        strokeWidth={1.5}
        strokeDasharray="5 4"
      />
      {bar !== 0 && (
        <Head at={{ x: x(face), y: AXIS + radius * R + 20 }} dx={Math.sign(bar)} dy={0} ink="measured" />
      )}
      <Words at={{ x: WIDTH - 14, y: HEIGHT - 58 }} anchor="end" ink="measured" plain>
        face, from where it is with the smallest
      </Words>
      <Words at={{ x: WIDTH - 14, y: HEIGHT - 36 }} anchor="end" ink="measured" bold size={20}>
        {known ? formatLength(moved, unit, { plus: true }) : '?'}
      </Words>
      <Words at={{ x: 14, y: HEIGHT - 58 }} anchor="start" ink="measured" plain>
        bar
      </Words>
      <Words at={{ x: 14, y: HEIGHT - 36 }} anchor="start" ink="measured" bold={onBar} size={20}>
        {known ? formatLength(diameter, unit) : '?'}
      </Words>
      {stop && (
        <Words at={{ x: WIDTH / 2, y: HEIGHT - 12 }} plain bold={lit === 'stop'}>
          {STOPS[stop].name}
        </Words>
      )}
    </CycleSheet>
  )
}

const still = { fill: 'var(--color-layout-deep)', stroke: 'var(--color-scribe-dim)', strokeWidth: 1.5 }
const moving = (lit: boolean) => ({
  fill: 'var(--color-scribe)',
  fillOpacity: 0.12,
  stroke: lit ? 'var(--color-brass)' : 'var(--color-scribe)',
  strokeWidth: lit ? 3.5 : 2,
})

/** Collet and what closes it, above or below the axis. The cone is drawn at its true angle. */
function Cone({ sketch, side, lit }: { sketch: ColletSketch; side: 1 | -1; lit: string | undefined }) {
  const { closing, radius, smallest, coneDegrees = 10, collet, tube } = sketch
  const tan = Math.tan((coneDegrees * Math.PI) / 180)
  // As long as the head of the collet gets no thicker than a bar's radius.
  const length = Math.min(1.9, 0.8 / tan)
  const back = FACE - length
  const thin = radius + WALL
  const thick = thin + length * tan
  const [from, to] = [back + collet, FACE + collet]
  const pulled = closing === 'pull'
  /** The cone that the collet lies in: of the body, or of the sleeve that was pushed over it. */
  const shift = pulled ? 0 : tube
  const bore = smallest + WALL
  /** The collet, or the half of it that does not lie in a tube: head in the cone, tail screwed into the draw tube. */
  const tailEnd = TUBE.front + collet - 0.2
  const outline: [number, number][] = [
    [to, radius],
    [to, thick],
    [from, thin],
    ...(pulled
      ? ([
          [from - 0.25, TUBE.outer],
          [tailEnd, TUBE.outer],
          [tailEnd, TUBE.inner],
          [from - 0.1, TUBE.inner],
        ] as [number, number][])
      : []),
    [from, radius],
  ]
  const cone: [number, number][] = [
    [back + shift, bore],
    [FACE + shift, bore + length * tan],
  ]
  const outer = pulled ? BODY.outer : bore + length * tan + 0.22
  return (
    <>
      {!pulled && (
        <path
          d={path(
            [
              [BODY.back, outer + 0.05],
              [FACE + 0.25, outer + 0.05],
              [FACE + 0.25, radius + 0.12],
              [FACE + 0.45, radius + 0.12],
              [FACE + 0.45, outer + 0.4],
              [BODY.back, outer + 0.4],
            ],
            side,
          )}
          {...still}
        />
      )}
      <path
        d={path(
          [
            ...cone,
            [FACE + shift, outer],
            ...(pulled
              ? ([
                  [BODY.back, outer],
                  [BODY.back, bore],
                ] as [number, number][])
              : ([
                  [TUBE.front + shift, outer],
                  [TUBE.front + shift, TUBE.inner],
                  [back + shift, TUBE.inner],
                ] as [number, number][])),
          ],
          side,
        )}
        {...(pulled ? still : moving(false))}
      />
      <path d={path(outline, side)} {...moving(lit === 'collet')} className="lights-up" />
      <Tube sketch={sketch} side={side} />
      {side === 1 && (
        <Words at={{ x: x(FACE - 0.6), y: AXIS - (BODY.outer + 0.25) * R }} plain>
          {fixedDigits(coneDegrees, coneDegrees % 1 === 0 ? 0 : 1)}° per side
        </Words>
      )}
    </>
  )
}

function Jaws({ sketch: { radius }, sketch, side }: { sketch: ColletSketch; side: 1 | -1 }) {
  return (
    <>
      <path
        d={path(
          [
            [BODY.back, TUBE.outer + 0.08],
            [0, TUBE.outer + 0.08],
            [0, BODY.outer],
            [BODY.back, BODY.outer],
          ],
          side,
        )}
        {...still}
      />
      <path
        d={path(
          [
            [0.04, radius],
            [FACE, radius],
            [FACE, radius + 0.45],
            [0.8, radius + 0.95],
            [0.04, radius + 0.95],
          ],
          side,
        )}
        {...moving(false)}
      />
      <Tube sketch={sketch} side={side} />
    </>
  )
}

/** The draw tube, with an arrow the way it goes to close. */
function Tube({ sketch: { closing, tube }, side }: { sketch: ColletSketch; side: 1 | -1 }) {
  const way = closing === 'dead-length' ? 1 : -1
  const at = x(-2.7)
  return (
    <>
      <path
        d={path(
          [
            [TUBE.back, TUBE.inner],
            [TUBE.front + tube, TUBE.inner],
            [TUBE.front + tube, TUBE.outer],
            [TUBE.back, TUBE.outer],
          ],
          side,
        )}
        {...moving(false)}
      />
      {side === 1 && (
        <g>
          <line
            x1={at - way * 22}
            y1={AXIS - 1.7 * R}
            x2={at + way * 14}
            y2={AXIS - 1.7 * R}
            stroke="var(--color-scribe)"
            strokeWidth={2}
          />
          <Head at={{ x: at + way * 22, y: AXIS - 1.7 * R }} dx={way} dy={0} />
          <Words at={{ x: at, y: AXIS - 1.7 * R - 12 }} plain>
            closes
          </Words>
        </g>
      )}
    </>
  )
}

/** The stop, beside what it moves with. */
function StopMark({ sketch, stop, lit }: { sketch: ColletSketch; stop: StopKind; lit: boolean }) {
  const { bar, collet, tube, radius } = sketch
  const { never } = STOPS[stop]
  const ink = lit ? 'var(--color-brass)' : 'var(--color-scribe)'
  const block = (z: number, width: number, height: number, dashed = false) => (
    <rect
      x={x(z)}
      y={AXIS - height * R}
      width={width * R}
      height={2 * height * R}
      fill={dashed ? 'none' : 'var(--color-layout-deep)'}
      stroke={never ? 'var(--color-scribe-dim)' : ink}
      strokeWidth={lit ? 3.5 : 2}
      strokeDasharray={dashed ? '5 4' : undefined}
      className="lights-up"
    />
  )
  const against = BAR.back + bar
  if (stop === 'turret' || stop === 'callipers') return block(BAR.face + 0.62, 0.3, 0.9, true)
  if (stop === 'chuck-face') return <FaceStop radius={radius} ink={ink} width={lit ? 3.5 : 2} />
  if (stop === 'jaw-shoulder')
    return ([1, -1] as const).map((side) => (
      <path
        key={side}
        d={path(
          [
            [SHOULDER.back, SHOULDER.inner],
            [SHOULDER.face, SHOULDER.inner],
            [SHOULDER.face, radius],
            [SHOULDER.back, radius],
          ],
          side,
        )}
        fill="var(--color-layout-deep)"
        stroke={ink}
        strokeWidth={lit ? 3.5 : 2}
      />
    ))
  if (stop === 'bar-feeder')
    return (
      <>
        {block(against - 1.4, 1.4, 0.22)}
        {block(against - 0.2, 0.2, 0.7)}
      </>
    )
  if (stop === 'actuator')
    return (
      <>
        {block(against - 0.2, 0.2, 0.6)}
        {block(-4, 0.16, 1.5)}
        <line x1={x(-3.84)} y1={AXIS} x2={x(against - 0.2)} y2={AXIS} stroke={ink} strokeWidth={3} />
      </>
    )
  // In the bore: on a spider that is held by what the stop moves with.
  const holder = stop === 'collet' ? collet : stop === 'draw-tube' ? tube : 0
  const back = BAR.back - 0.22 + (stop === 'collet' || stop === 'draw-tube' ? holder : bar)
  return (
    <>
      {block(back, 0.22, 0.75)}
      {[1, -1].map((side) => (
        <line
          key={side}
          x1={x(back + 0.11)}
          y1={AXIS - side * 0.75 * R}
          x2={x(back + 0.11)}
          y2={AXIS - side * (stop === 'collet' || stop === 'draw-tube' ? TUBE.inner : 1.08) * R}
          stroke={ink}
          strokeWidth={lit ? 5 : 4}
        />
      ))}
    </>
  )
}

/** A plate on the chuck's face that a shoulder of the part comes to. */
function FaceStop({ radius, ink, width }: { radius: number; ink: string; width: number }) {
  return (
    <>
      {([1, -1] as const).map((side) => (
        <g key={side}>
          <path
            d={path(
              [
                [FACE + 0.5, radius + 0.12],
                [FACE + 0.72, radius + 0.12],
                [FACE + 0.72, 1.75],
                [FACE + 0.5, 1.75],
              ],
              side,
            )}
            fill="var(--color-layout-deep)"
            stroke={ink}
            strokeWidth={width}
          />
          <path
            d={path(
              [
                [FACE + 0.74, radius],
                [BAR.face, radius],
                [BAR.face, radius + 0.35],
                [FACE + 0.74, radius + 0.35],
              ],
              side,
            )}
            fill="var(--color-scribe)"
            fillOpacity={0.22}
            stroke="var(--color-scribe)"
            strokeWidth={2}
          />
        </g>
      ))}
    </>
  )
}
