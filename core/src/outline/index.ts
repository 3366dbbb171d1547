export { type EllipseArc, ellipseIn, ellipsePath, isSound, pathIn, type Spline, splinePath } from './curve.ts'
export { joined } from './join.ts'
export {
  AS_DRAWN,
  centreOf,
  evenScale,
  mirrors,
  type OutlinePath,
  type Placing,
  placedIn,
  placePoint,
  reversed,
  type Vertex,
} from './path.ts'
