import type { FeatureSketch, GaugeSketch, PlayPoint } from '@dogleg/core/gauge'
import type { ReactNode } from 'react'
import type { Point } from '../drawing/frame.ts'
import { Head, Scribe, Words } from '../drawing/marks.tsx'
import { plan, polygon } from '../drawing/plan.ts'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 700
const HEIGHT = 300

interface GaugePlanDrawingProps {
  sketch: GaugeSketch
  chosen: string | undefined
  lit: string | undefined
  /** Where the probe is, if it is shown going. */
  probe?: PlayPoint | undefined
  /** Diameter of the ball. */
  stylus: number
  onChoose?: (id: string) => void
  children?: ReactNode
}

/** What is gauged, from above: the part, what stands on it, the features with their touches, the way between them. */
export function GaugePlanDrawing({
  sketch,
  chosen,
  lit,
  probe,
  stylus,
  onChoose,
  children,
}: GaugePlanDrawingProps) {
  const { features, bodies, way, least, greatest } = sketch
  const on = plan(least, greatest, { left: 40, top: 26, width: WIDTH - 80, height: HEIGHT - 52 })
  const { place } = on
  const zero = place({ x: 0, y: 0 })
  return (
    <CycleSheet
      label={`${features.length} features in plan${probe ? ', and the probe' : ''}`}
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-full"
    >
      {[...bodies]
        .sort((a, b) => Number(b.part) - Number(a.part))
        .map(({ name, part, least: low, greatest: high, round }) => {
          const [a, b] = [place({ x: low.x, y: high.y }), place({ x: high.x, y: low.y })]
          return (
            <rect
              key={name}
              x={a.x}
              y={a.y}
              width={b.x - a.x}
              height={b.y - a.y}
              rx={round ? (b.x - a.x) / 2 : 0}
              fill={part ? 'var(--color-scribe)' : 'var(--color-layout-deep)'}
              fillOpacity={part ? 0.13 : 0.7}
              stroke={part ? 'var(--color-scribe)' : 'var(--color-scribe-dim)'}
              strokeWidth={part ? 2 : 1}
            />
          )
        })}
      {[
        { x1: 0, x2: WIDTH, y1: zero.y, y2: zero.y },
        { x1: zero.x, x2: zero.x, y1: 0, y2: HEIGHT },
      ].map((line) => (
        <line
          key={`${line.x1}/${line.y1}`}
          {...line}
          stroke="var(--color-scribe-dim)"
          strokeDasharray="14 4 3 4"
        />
      ))}
      <polyline
        points={polygon(way.map(place))}
        fill="none"
        stroke="var(--color-brass)"
        strokeWidth={1}
        strokeDasharray="3 5"
      />
      {features.map((feature) => (
        <Feature
          key={feature.id}
          feature={feature}
          scale={on.scale}
          place={place}
          isChosen={feature.id === chosen}
          lit={feature.id === chosen ? lit : undefined}
          onChoose={onChoose}
        />
      ))}
      {probe && (
        <circle
          cx={place(probe).x}
          cy={place(probe).y}
          r={Math.max(6, (stylus / 2) * on.scale)}
          fill="var(--color-brass)"
          stroke="var(--color-layout-deep)"
          strokeWidth={2}
        />
      )}
      {bodies
        .filter(({ part }) => !part)
        .map(({ name, least: low, greatest: high }) => {
          const middle = place({ x: (low.x + high.x) / 2, y: (low.y + high.y) / 2 })
          const inside = middle.x > 40 && middle.x < WIDTH - 40 && middle.y > 16 && middle.y < HEIGHT - 8
          return inside ? (
            <Words key={name} at={middle} plain>
              {name}
            </Words>
          ) : null
        })}
      {features.length === 0 && (
        <Words at={{ x: WIDTH / 2, y: HEIGHT / 2 }} plain size={18}>
          The features appear here as you type.
        </Words>
      )}
      {children}
    </CycleSheet>
  )
}

interface FeatureProps {
  feature: FeatureSketch
  scale: number
  place: (at: { x: number; y: number }) => Point
  isChosen: boolean
  lit: string | undefined
  onChoose: ((id: string) => void) | undefined
}

function Feature({ feature, scale, place, isChosen, lit, onChoose }: FeatureProps) {
  const { id, name, order, at, circle, lines, touches, what } = feature
  const middle = place(at)
  const shape = lit === 'nominal' || lit === 'tolerance' || lit === 'base' || lit === 'angle'
  const touched =
    lit === 'gap' || lit === 'past' || lit === 'axis' || lit === 'directionX' || lit === 'directionY'
  const radius = circle === undefined ? 0 : Math.max(4, circle * scale)
  const zero = place({ x: 0, y: 0 })
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the same is had from the list by keyboard
    <g onClick={() => onChoose?.(id)} className={onChoose ? 'cursor-pointer' : ''}>
      {circle !== undefined && (
        <circle
          cx={middle.x}
          cy={middle.y}
          r={radius}
          fill={what === 'bore' ? 'var(--color-layout-deep)' : 'var(--color-scribe)'}
          fillOpacity={what === 'bore' ? 0.6 : 0.2}
          stroke={isChosen ? 'var(--color-brass)' : 'var(--color-scribe)'}
          strokeWidth={isChosen ? (shape ? 5 : 3) : 2}
        />
      )}
      {lines.map(([a, b]) => (
        <Scribe
          key={`${a.x}/${a.y}/${b.x}/${b.y}`}
          from={place(a)}
          to={place(b)}
          ink={isChosen ? 'measured' : 'part'}
          lit={isChosen}
        />
      ))}
      {touches.map(([from, to]) => {
        const [a, b] = [place(from), place(to)]
        return (
          <g key={`${to.x}/${to.y}`} opacity={isChosen ? 1 : 0.65}>
            <Scribe from={a} to={b} ink="measured" lit={isChosen && touched} />
            <Head at={b} dx={b.x - a.x} dy={b.y - a.y} ink="measured" lit={isChosen && touched} />
          </g>
        )
      })}
      {isChosen && lit === 'x' && <Scribe from={{ x: zero.x, y: middle.y }} to={middle} ink="measured" lit />}
      {isChosen && lit === 'y' && <Scribe from={{ x: middle.x, y: zero.y }} to={middle} ink="measured" lit />}
      <Words
        at={{ x: middle.x, y: middle.y - radius - 9 < 18 ? middle.y + radius + 20 : middle.y - radius - 9 }}
        ink={isChosen ? 'measured' : 'part'}
        bold={isChosen}
        plain
      >
        {order === undefined ? name : `${order} ${name}`}
      </Words>
    </g>
  )
}
