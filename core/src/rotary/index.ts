export { type Centre, type CentreAxis, measureCentre } from './centre.ts'
export {
  type CentreDraft,
  type CentreField,
  centreDraft,
  centreDraftOf,
  type FlatDraft,
  type FlatField,
  flatDraft,
  flatDraftOf,
  readCentreDraft,
  readFlatDraft,
  startingCentre,
  startingFlat,
  wasTurned,
} from './draft.ts'
export { CENTRE_LINE, centreLine, flat, flatSubject } from './entries.ts'
export { type Flat, measureFlat } from './flat.ts'
export { type CentreCase, type EarlierCentre, judgeCentre } from './judge-centre.ts'
export { type EarlierFlat, type FlatCase, judgeFlat } from './judge-flat.ts'
export {
  type CentreReading,
  centreReading,
  FLAT_METHODS,
  type FlatFaces,
  type FlatMethod,
  type FlatReading,
  flatReading,
  type RotaryDevice,
  type Sides,
} from './reading.ts'
export { type CentreSketch, centreSketch, type FlatSketch, flatSketch } from './sketch.ts'
