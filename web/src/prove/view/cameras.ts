import { OrthographicCamera, PerspectiveCamera, Vector3 } from 'three'
import type { Extent, Eye, Size, SpaceEye, StraightEye } from './view-frame.ts'

/** Degrees, from the bottom of the view in space to its top. */
export const FIELD_OF_VIEW = 42

/** Far enough away to have everything before it: a straight view looks the same from anywhere. */
const FAR = 5_000

const middleOf = ({ least, greatest }: Extent) =>
  new Vector3(...([0, 1, 2] as const).map((axis) => (least[axis] + greatest[axis]) / 2))

/** Puts a camera where somebody stands who looks at the work area in space. */
export function placeInSpace(camera: PerspectiveCamera, { turn, tilt, closer, extent }: SpaceEye) {
  const middle = middleOf(extent)
  // The ball round the work area fits into the narrower of the two angles of the view.
  const ball = new Vector3(...extent.greatest).distanceTo(new Vector3(...extent.least)) / 2
  const upward = ((FIELD_OF_VIEW / 2) * Math.PI) / 180
  const angle = Math.min(upward, Math.atan(Math.tan(upward) * camera.aspect))
  const far = (1.02 * ball) / Math.sin(angle) / closer
  camera.up.set(0, 0, 1)
  camera.position.set(
    middle.x + far * Math.cos(tilt) * Math.sin(turn),
    middle.y - far * Math.cos(tilt) * Math.cos(turn),
    middle.z + far * Math.sin(tilt),
  )
  camera.near = far / 100
  camera.far = far * 20
  camera.lookAt(middle)
  camera.updateProjectionMatrix()
}

function straight({ side, window }: StraightEye, { width, height }: Size): OrthographicCamera {
  const camera = new OrthographicCamera(-width / 2, width / 2, height / 2, -height / 2, 1, 2 * FAR)
  const at: [number, number, number] = [0, 0, 0]
  at[side.right] = window.right
  at[side.up] = window.up
  camera.up.set(0, 0, 0).setComponent(side.up, 1)
  at[side.eye] = side.from * FAR
  camera.position.set(...at)
  at[side.eye] = 0
  camera.lookAt(...at)
  camera.zoom = window.scale
  camera.updateProjectionMatrix()
  camera.updateMatrixWorld()
  return camera
}

/** The camera that sees what the view shows. */
export function cameraOf(eye: Eye, size: Size): OrthographicCamera | PerspectiveCamera {
  if ('side' in eye) return straight(eye, size)
  const camera = new PerspectiveCamera(FIELD_OF_VIEW, size.width / Math.max(size.height, 1))
  placeInSpace(camera, eye)
  camera.updateMatrixWorld()
  return camera
}
