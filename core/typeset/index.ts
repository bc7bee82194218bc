export {
  FACES,
  type FaceId,
  type FontMetrics,
  type Fonts,
  type OfFaces,
  ofFaces,
  type Outlines,
  readFont,
} from './font.ts';
export {
  type Measured,
  type SetLine,
  type Span,
  broken,
  measured,
  setText,
  textFaults,
  widthOf,
} from './text.ts';
export {
  type Box_mm,
  type Colour,
  type Drawing,
  type Drawn,
  contrast,
  fieldBox,
  inkOf,
  svgOf,
} from './drawing.ts';
