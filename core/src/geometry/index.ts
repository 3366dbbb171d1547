export { besidePiece, type Corner, corner, lengthenedBy, type Obstacle, type Rounding } from './beside.ts'
export { type CircleFit, fitCircle } from './circle-fit.ts'
export { cosineOf, sineOf } from './degrees.ts'
export { type EdgeFit, fitEdge } from './edge-fit.ts'
export { fitLine, type LineFit, type LinePoint } from './line-fit.ts'
export {
  arc,
  besideEnd,
  besideStart,
  crosses,
  linesCross,
  type Piece,
  pieceLength,
  straight,
} from './piece.ts'
export { centroid, degrees, distance, halfTurn, type PlanePoint, radians, turned } from './point.ts'
export { fitRigid, moved, type PointPair, type RigidFit } from './rigid-fit.ts'
export { type Legs, lengthOf, MOST_EXACT, shortestOrder } from './shortest-order.ts'
