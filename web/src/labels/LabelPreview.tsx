import type { LabelLook } from '@cocotte/core/batches';
import type { LabelPiece, PlacedRule } from '@cocotte/core/labels';
import { svgOf } from '@cocotte/core/typeset';
import { openPaper } from '@cocotte/contract';
import { Box } from '@mui/material';
import { addressOf } from '../shell/call.ts';
import { say } from '../words/views.ts';
import type { LabelTools } from './tools.ts';

/** How much room beside what is pointed at, mm. */
const AROUND_MM = 0.6;

/** Where the picture of a look is to be had. */
export const pictureOf = (look: LabelLook): Map<string, string> =>
  new Map(
    look.pictureId === null ? [] : [[look.pictureId, addressOf(openPaper, { paperId: look.pictureId })]],
  );

/** The pieces of a label as they are printed, at their true size times `zoom`; what is pointed at has a frame. */
export function LabelPreview({
  pieces,
  tools,
  look,
  zoom,
  pointed,
}: {
  pieces: readonly LabelPiece[];
  tools: LabelTools;
  look: LabelLook;
  zoom: number;
  pointed: PlacedRule['at'];
}) {
  return (
    <Box
      role="group"
      aria-label={say('label.preview')}
      // What is wider than the sheet is moved, never made smaller: true size is true.
      tabIndex={0}
      sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, overflowX: 'auto', pb: 0.5 }}
    >
      {pieces.map(({ name, drawing }) => (
        <Box key={name}>
          {pieces.length > 1 && <Box sx={{ color: 'text.secondary' }}>{say(`label.piece.${name}`)}</Box>}
          <Box
            sx={{
              position: 'relative',
              width: `${drawing.width_mm * zoom}mm`,
              aspectRatio: `${drawing.width_mm} / ${drawing.height_mm}`,
              border: '1px dashed',
              borderColor: 'rule.strong',
              borderRadius: drawing.round ? '50%' : 0,
              boxSizing: 'content-box',
              '& svg': { display: 'block', width: '100%', height: '100%' },
            }}
          >
            {/* oxlint-disable-next-line react/no-danger -- the drawing escapes all words in it */}
            <div dangerouslySetInnerHTML={{ __html: svgOf(drawing, tools.outlines, pictureOf(look)) }} />
            {pointed?.piece === name && (
              <Box
                data-testid="pointed"
                sx={{
                  position: 'absolute',
                  left: `${((pointed.box.left - AROUND_MM) / drawing.width_mm) * 100}%`,
                  top: `${((pointed.box.top - AROUND_MM) / drawing.height_mm) * 100}%`,
                  width: `${((pointed.box.right - pointed.box.left + 2 * AROUND_MM) / drawing.width_mm) * 100}%`,
                  height: `${((pointed.box.bottom - pointed.box.top + 2 * AROUND_MM) / drawing.height_mm) * 100}%`,
                  border: '2px solid',
                  borderColor: 'live.fill',
                  borderRadius: '3px',
                }}
              />
            )}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
