import type { PathPicture } from '@dogleg/core/prove'
import { Canvas, useThree } from '@react-three/fiber'
import { useEffect, useMemo } from 'react'
import { BufferAttribute, BufferGeometry, OrthographicCamera } from 'three'
import type { Side, Window } from './view-frame.ts'

const SCRIBE = '#eef4ff'
const TO_COME = '#8ea8e6'
const RAPID = '#6f8fdd'

/** The same points as two lots of lines: what has been done, and what is to come. */
function useLots(points: Float32Array) {
  const lots = useMemo(() => {
    const attribute = new BufferAttribute(points, 3)
    const make = () => {
      const geometry = new BufferGeometry()
      geometry.setAttribute('position', attribute)
      return geometry
    }
    return { done: make(), toCome: make() }
  }, [points])
  useEffect(
    () => () => {
      lots.done.dispose()
      lots.toCome.dispose()
    },
    [lots],
  )
  return lots
}

/** The path as lines on the graphics card; a step only moves the border between done and to come. */
export function PathLots({ picture, row }: { picture: PathPicture; row: number }) {
  const rapid = useLots(picture.rapid)
  const feed = useLots(picture.feed)
  const invalidate = useThree((state) => state.invalidate)
  const [rapids, feeds] = [picture.rapid.length / 3, picture.feed.length / 3]
  const at = Math.max(0, Math.min(row, picture.feedBefore.length - 1))
  const [rapidDone, feedDone] = [2 * (picture.rapidBefore[at] ?? 0), 2 * (picture.feedBefore[at] ?? 0)]
  rapid.done.setDrawRange(0, rapidDone)
  rapid.toCome.setDrawRange(rapidDone, rapids - rapidDone)
  feed.done.setDrawRange(0, feedDone)
  feed.toCome.setDrawRange(feedDone, feeds - feedDone)
  useEffect(() => invalidate())
  // biome-ignore lint/correctness/useExhaustiveDependencies: once a picture, when it has been drawn
  useEffect(() => {
    const frame = requestAnimationFrame(() => performance.mark('dogleg.pictured'))
    return () => cancelAnimationFrame(frame)
  }, [picture])
  return (
    <>
      <lineSegments geometry={rapid.toCome} frustumCulled={false}>
        <lineBasicMaterial color={RAPID} transparent opacity={0.45} />
      </lineSegments>
      <lineSegments geometry={rapid.done} frustumCulled={false}>
        <lineBasicMaterial color={RAPID} transparent opacity={0.9} />
      </lineSegments>
      <lineSegments geometry={feed.toCome} frustumCulled={false}>
        <lineBasicMaterial color={TO_COME} transparent opacity={0.7} />
      </lineSegments>
      <lineSegments geometry={feed.done} frustumCulled={false}>
        <lineBasicMaterial color={SCRIBE} />
      </lineSegments>
    </>
  )
}

/** Holds the camera to the window of the view. */
function Rig({ side, window }: { side: Side; window: Window }) {
  const { camera, invalidate } = useThree()
  useEffect(() => {
    if (!(camera instanceof OrthographicCamera)) return
    const at: [number, number, number] = [0, 0, 0]
    at[side.right] = window.right
    at[side.up] = window.up
    camera.up.set(0, 0, 0).setComponent(side.up, 1)
    at[side.eye] = side.from * 5_000
    camera.position.set(...at)
    at[side.eye] = 0
    camera.lookAt(...at)
    camera.near = 1
    camera.far = 10_000
    camera.zoom = window.scale
    camera.updateProjectionMatrix()
    invalidate()
  }, [camera, invalidate, side, window])
  return null
}

/** The path in one straight view. */
export function PathLines({
  picture,
  row,
  side,
  window,
}: {
  picture: PathPicture
  row: number
  side: Side
  window: Window
}) {
  return (
    <Canvas
      orthographic
      frameloop="demand"
      dpr={[1, 2]}
      gl={{ antialias: true, alpha: true }}
      aria-hidden
      tabIndex={-1}
    >
      <Rig side={side} window={window} />
      <PathLots picture={picture} row={row} />
    </Canvas>
  )
}
