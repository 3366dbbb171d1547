import { type Body, boundsOf, type ToolPart, type Triple } from '@dogleg/core/prove'
import { Canvas, useThree } from '@react-three/fiber'
import { useEffect, useMemo, useState } from 'react'
import {
  BoxGeometry,
  CylinderGeometry,
  EdgesGeometry,
  LatheGeometry,
  PerspectiveCamera,
  Vector2,
} from 'three'
import { Button } from '../../ui/button.tsx'
import { FIELD_OF_VIEW, placeInSpace } from './cameras.ts'
import type { Drawing } from './drawing.ts'
import { PathCanvas } from './path-canvas.tsx'
import { useSize } from './use-size.ts'
import type { Extent, SpaceEye } from './view-frame.ts'

const LOOKS: Record<Body['role'], { color: string; opacity: number }> = {
  part: { color: '#eef4ff', opacity: 0.22 },
  vise: { color: '#a9bdea', opacity: 0.16 },
  clamp: { color: '#a9bdea', opacity: 0.3 },
  stop: { color: '#a9bdea', opacity: 0.3 },
  chuck: { color: '#a9bdea', opacity: 0.16 },
}

/** Turns a standing cylinder of three (along Y) to lie along an axis. */
const TURNS: Record<'X' | 'Y' | 'Z', [number, number, number]> = {
  X: [0, 0, Math.PI / 2],
  Y: [0, 0, 0],
  Z: [Math.PI / 2, 0, 0],
}

/** A cylinder along Y about its middle, or a tube: its section turned once round. */
function roundGeometry({ diameter, bore, length }: Extract<Body, { shape: 'cylinder' }>) {
  if (!bore) return new CylinderGeometry(diameter / 2, diameter / 2, length, 48)
  const corners = [
    [bore / 2, -length / 2],
    [diameter / 2, -length / 2],
    [diameter / 2, length / 2],
    [bore / 2, length / 2],
    [bore / 2, -length / 2],
  ] as const
  return new LatheGeometry(
    corners.map(([x, y]) => new Vector2(x, y)),
    48,
  )
}

function BodyShape({ body }: { body: Body }) {
  const { least, greatest } = boundsOf(body)
  const middle = [0, 1, 2].map((axis) => ((least[axis] as number) + (greatest[axis] as number)) / 2) as [
    number,
    number,
    number,
  ]
  const geometry = useMemo(
    () =>
      body.shape === 'box' ? new BoxGeometry(body.size.x, body.size.y, body.size.z) : roundGeometry(body),
    [body],
  )
  const edges = useMemo(() => new EdgesGeometry(geometry, 30), [geometry])
  const { color, opacity } = LOOKS[body.role]
  return (
    <group position={middle} rotation={body.shape === 'box' ? [0, 0, 0] : TURNS[body.axis]}>
      <mesh geometry={geometry}>
        <meshBasicMaterial color={color} transparent opacity={opacity} depthWrite={false} />
      </mesh>
      <lineSegments geometry={edges}>
        <lineBasicMaterial color={color} />
      </lineSegments>
    </group>
  )
}

/** How thick a lathe's tool is drawn across, as a share of its narrower side. */
const THICK = 0.5

const OPACITY: Partial<Record<ToolPart['name'], number>> = {
  holder: 0.35,
  nose: 0.2,
  head: 0.06,
  turret: 0.12,
}

function ToolShape3({ parts, tip }: { parts: readonly ToolPart[]; tip: Triple }) {
  return (
    <group position={[tip[0], tip[1], tip[2]]}>
      {parts.map((part, index) => {
        const key = `${part.name}-${index}`
        const opacity = OPACITY[part.name] ?? 0.7
        // A head has no top: it is drawn as high as it is deep.
        if (part.form === 'block') {
          const [wide, deep] = [part.x[1] - part.x[0], part.y[1] - part.y[0]]
          return (
            <mesh
              key={key}
              position={[(part.x[0] + part.x[1]) / 2, (part.y[0] + part.y[1]) / 2, part.from + deep / 2]}
            >
              <boxGeometry args={[wide, deep, deep]} />
              <meshBasicMaterial color="#f5edd9" transparent opacity={opacity} depthWrite={false} />
            </mesh>
          )
        }
        // What is beside the plane through the centre line is not drawn in it.
        if (part.form === 'flat' && part.beside) return null
        if (part.form === 'flat') {
          const [wide, long] = [part.x, part.z].map(([low, high]) => Math.max(high - low, 0.01)) as [
            number,
            number,
          ]
          return (
            <mesh key={key} position={[(part.x[0] + part.x[1]) / 2, 0, (part.z[0] + part.z[1]) / 2]}>
              <boxGeometry args={[wide, Math.min(wide, long) * THICK, long]} />
              <meshBasicMaterial color="#f5edd9" transparent opacity={opacity} />
            </mesh>
          )
        }
        const r = Math.max(part.radius, 0.01)
        return (
          <mesh key={key} position={[0, 0, (part.from + part.to) / 2]} rotation={[Math.PI / 2, 0, 0]}>
            <cylinderGeometry args={[r, r, Math.max(part.to - part.from, 0.01), 32]} />
            <meshBasicMaterial color="#f5edd9" transparent opacity={opacity} />
          </mesh>
        )
      })}
    </group>
  )
}

function Camera({ eye }: { eye: SpaceEye }) {
  const { camera, invalidate } = useThree()
  useEffect(() => {
    if (camera instanceof PerspectiveCamera) placeInSpace(camera, eye)
    invalidate()
  }, [camera, invalidate, eye])
  return null
}

const STEP = Math.PI / 12

/** The work area in space; turned by dragging, or by its keys. */
export function SpaceView({
  drawing,
  bodies,
  parts,
  tip,
  extent,
}: {
  drawing: Drawing
  bodies: readonly Body[]
  parts: readonly ToolPart[]
  tip: Triple
  extent: Extent
}) {
  const [turn, setTurn] = useState(0.6)
  const [tilt, setTilt] = useState(0.55)
  const [closer, setCloser] = useState(1)
  const [ref, size] = useSize()
  const eye = useMemo(() => ({ turn, tilt, closer, extent }), [turn, tilt, closer, extent])
  const tilted = (by: number) => setTilt((now) => Math.max(-1.5, Math.min(1.5, now + by)))
  return (
    <section aria-label="Work area in space" className="relative h-full min-h-0 min-w-0">
      <div
        ref={ref}
        className="on-layout relative h-full touch-none overflow-hidden rounded-sm bg-layout"
        onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
        onPointerMove={(event) => {
          if (!event.currentTarget.hasPointerCapture(event.pointerId)) return
          setTurn((now) => now - event.movementX / 150)
          tilted(event.movementY / 150)
        }}
        onWheel={(event) =>
          setCloser((now) => Math.max(0.3, Math.min(8, now * Math.exp(-event.deltaY / 600))))
        }
      >
        {size.width > 0 && <PathCanvas drawing={drawing} eye={eye} size={size} />}
        <Canvas
          frameloop="demand"
          dpr={[1, 2]}
          camera={{ fov: FIELD_OF_VIEW }}
          className="absolute inset-0"
          aria-hidden
          tabIndex={-1}
        >
          <Camera eye={eye} />
          {bodies.map((body) => (
            <BodyShape key={body.id} body={body} />
          ))}
          <ToolShape3 parts={parts} tip={tip} />
        </Canvas>
      </div>
      <div className="absolute right-2 bottom-2 flex flex-wrap gap-1">
        {(
          [
            ['Turn left', () => setTurn((now) => now - STEP)],
            ['Turn right', () => setTurn((now) => now + STEP)],
            ['Higher', () => tilted(STEP)],
            ['Lower', () => tilted(-STEP)],
          ] as const
        ).map(([label, go]) => (
          <Button key={label} onClick={go} className="bg-stock">
            {label}
          </Button>
        ))}
      </div>
    </section>
  )
}
