import { openPaper } from '@cocotte/contract';
import { LABEL_DESIGNS, type LabelDesign, type LabelStock } from '@cocotte/core/batches';
import { jarSize } from '@cocotte/core/jars';
import { PAPER_TYPES } from '@cocotte/core/kitchen';
import { LABEL_SCANS, NET_FORMS } from '@cocotte/core/labels';
import { kitchenUnits } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { AttachPaper } from '../kit/AttachPaper.tsx';
import { Figure, Pick, Text, Tick } from '../kit/fields.tsx';
import { Folded } from '../kit/Folded.tsx';
import type { Typed } from '../kit/form.ts';
import { Cells, Line } from '../kit/layout.tsx';
import { addressOf } from '../shell/call.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import { NUTRIENTS, type setupShape, type SetupTexts } from './setup-form.ts';

export type SetupForm = Typed<SetupTexts, ReturnType<ReturnType<typeof setupShape>>>;

/** A label bears a picture, no document. */
const PICTURES = PAPER_TYPES.filter(t => t.startsWith('image/'));

/** Height over width of a kept picture. */
async function ratioOf(paperId: string): Promise<number> {
  const picture = new Image();
  picture.src = addressOf(openPaper, { paperId });
  await picture.decode();
  return picture.naturalHeight / picture.naturalWidth;
}

/** How the labels of a recipe are made. */
export function SetupFields({
  form,
  recipeId,
  stocks,
  paged,
  onOwnStock,
}: {
  form: SetupForm;
  recipeId: string;
  stocks: readonly LabelStock[];
  /** Lots have pages that anybody can read. */
  paged: boolean;
  /** Opens the measures of blank labels of one's own. */
  onOwnStock: () => void;
}) {
  const { kitchen } = useHere();
  const { at, typed } = form;
  const { sign } = kitchenUnits(kitchen).length;
  const stock = stocks.find(s => s.id === typed('stockId'));
  /** A round design wants round labels, and the other way round. */
  const onDesign = (design: LabelDesign) => {
    const shape = design === 'jar top' ? 'round' : 'rectangle';
    if (stock?.shape === shape) return;
    const paper = stock?.page_mm.width ?? 0;
    const other =
      stocks.find(s => s.shape === shape && Math.abs(s.page_mm.width - paper) < 1) ??
      stocks.find(s => s.shape === shape);
    if (other) form.set('stockId', other.id);
  };
  const pictureId = typed('pictureId');
  return (
    <>
      <Cells wide="1fr 1.6fr" gap={1.5}>
        <Pick at={at('design')} label={say('label.design')} of={LABEL_DESIGNS} onPick={onDesign} />
        <Pick at={at('stockId')} label={say('label.stock')} of={stocks.map(s => [s.id, s.name] as const)} />
      </Cells>
      <Line mt={1}>
        <Button size="small" variant="outlined" onClick={onOwnStock}>
          {say('label.stock.own')}
        </Button>
      </Line>
      {typed('design') === 'jar top' ? (
        <Box sx={{ color: 'text.secondary', mt: 1.5 }}>{say('label.code.round')}</Box>
      ) : (
        <>
          <Cells gap={1.5} mt={1.5}>
            <Pick
              at={at('scan')}
              label={say('label.code')}
              of={LABEL_SCANS.map(
                s => [s, s === 'QR' && paged ? say('label.code.page') : say(`label.code.${s}`)] as const,
              )}
            />
            <Text
              at={at('number')}
              label={say('label.number', { size: jarSize(typed('size')).plural })}
              hint={say('label.number.hint')}
            />
          </Cells>
          <Tick at={at('bars')} label={say('label.bars')} />
        </>
      )}
      <Cells gap={1.5} mt={1.5}>
        <Text at={at('words')} label={say('label.words')} hint={say('label.words.hint')} multiline />
        <Text at={at('keeping')} label={say('label.keeping')} hint={say('label.keeping.hint')} multiline />
      </Cells>
      <Folded summary={say('label.look')}>
        {() => (
          <>
            <Cells wide="1fr 1fr 1fr" narrow="1fr 1fr 1fr" gap={1.5} mt={1.5}>
              <Text at={at('accent')} label={say('label.accent')} type="color" />
              <Text at={at('ink')} label={say('label.ink')} type="color" />
              <Text at={at('ground')} label={say('label.ground')} type="color" />
            </Cells>
            <Line mt={1.5}>
              <AttachPaper
                subject={`label picture:${recipeId}`}
                label={say('label.picture')}
                attached={null}
                kinds={PICTURES}
                onAttached={paper =>
                  void form.attempt(async () => {
                    const ratio = await ratioOf(paper.paperId);
                    form.set('pictureRatio', ratio);
                    form.set('pictureId', paper.paperId);
                  })
                }
              />
              {pictureId !== null && (
                <>
                  <Box
                    component="img"
                    src={addressOf(openPaper, { paperId: pictureId })}
                    alt={say('label.picture.now')}
                    sx={{ height: 48, border: 1, borderColor: 'rule.main' }}
                  />
                  <Button size="small" variant="outlined" onClick={() => form.set('pictureId', null)}>
                    {say('label.picture.none')}
                  </Button>
                </>
              )}
            </Line>
            <Box sx={{ color: 'text.secondary', mt: 0.5 }}>{say('label.picture.hint')}</Box>
          </>
        )}
      </Folded>
      <Folded summary={say('label.content')}>
        {() => (
          <>
            <Cells gap={1.5} mt={1.5}>
              <Pick
                at={at('netForm')}
                label={say('label.netForm')}
                of={NET_FORMS.map(f => [f, say(`label.netForm.${f}`)] as const)}
              />
              <Text
                at={at('fewSulphites')}
                label={say('label.fewSulphites')}
                hint={say('label.fewSulphites.hint')}
              />
            </Cells>
            <Cells gap={1.5} mt={1.5}>
              <Figure at={at('diluteParts')} label={say('label.dilute')} hint={say('label.dilute.hint')} />
              <Tick at={at('shake')} label={say('label.shake')} />
            </Cells>
            <Tick at={at('groupSpices')} label={say('label.groupSpices')} />
          </>
        )}
      </Folded>
      <Folded summary={say('label.nutrition')}>
        {() => (
          <>
            <Cells wide="1.4fr 1fr 1fr" gap={1.5} mt={1.5}>
              <Pick
                at={at('how')}
                label={say('label.nutrition')}
                of={(['none', 'calculated', 'entered'] as const).map(
                  h => [h, say(`label.nutrition.${h}`)] as const,
                )}
              />
              {typed('how') !== 'none' && (
                <>
                  <Text at={at('serving')} label={say('label.serving')} hint={say('label.serving.hint')} />
                  <Figure at={at('servingGrams')} label={say('label.serving.weighs')} unit="g" />
                </>
              )}
            </Cells>
            {typed('how') === 'entered' && (
              <Cells wide="1fr 1fr 1fr" narrow="1fr 1fr" gap={1.5} mt={1.5}>
                {NUTRIENTS.map(([id]) => (
                  <Figure
                    key={id}
                    at={at(id)}
                    label={say(`label.nutrient.${id}`)}
                    unit={id.endsWith('_kcal') ? 'kcal' : id.endsWith('_mg') ? 'mg' : 'g'}
                  />
                ))}
              </Cells>
            )}
          </>
        )}
      </Folded>
      <Folded summary={say('label.container', { size: jarSize(typed('size')).name })}>
        {() => (
          <>
            <Cells wide="1fr 1fr 1fr" narrow="1fr" gap={1.5} mt={1.5}>
              <Figure at={at('across_mm')} label={say('label.across')} unit={sign} />
              <Figure at={at('tall_mm')} label={say('label.tall')} unit={sign} />
              <Figure at={at('lid_mm')} label={say('label.lid')} unit={sign} />
            </Cells>
            <Box sx={{ color: 'text.secondary', mt: 0.5 }}>{say('label.container.why')}</Box>
          </>
        )}
      </Folded>
    </>
  );
}
