import { gelPoint_C } from '@cocotte/core/heat';
import type { Kitchen } from '@cocotte/core/kitchen';
import { altitudeText, depthText, mixedText, numberText, temperatureText } from '@cocotte/core/measure';
import { sterilise_min } from '@cocotte/core/heat';
import { type JarSizeId, jarSize } from '@cocotte/core/jars';
import type { Recipe } from '@cocotte/core/recipes';
import { type RouteToSale, coverText, letterSays, processFor } from '@cocotte/core/review';
import {
  PROCESS_ENTRIES,
  type ScheduledTime,
  processByEntry,
  processEntry,
  steamFault,
  waterCover_mm,
} from '@cocotte/core/times';
import { Box, Typography } from '@mui/material';
import { Fractions, Sheet, Soft, Tag } from '../../kit/parts.tsx';
import { PageProof } from './ConfirmPage.tsx';
import { useHere } from '../../shell/session.tsx';
import { say } from '../../words/views.ts';

/** The heat step for this kitchen, with the row it was read from; or why there is none. */
export function ProcessPanel({
  recipe,
  kitchen,
  sizes,
}: {
  recipe: Recipe;
  kitchen: Kitchen;
  sizes: JarSizeId[];
}) {
  const hasGel = recipe.steps.some(s => s.target.kind === 'gel point');
  return (
    <Sheet
      title="Process here"
      aside={
        <Tag
          tone={recipe.foodClass === 'fruit spread' || recipe.foodClass === 'acid food' ? 'leaf' : 'plain'}
        >
          {recipe.foodClass === 'fruit spread' ? 'acid food' : recipe.foodClass}
        </Tag>
      }
    >
      {sizes.map(size => {
        const answer = processFor(recipe, size, kitchen.altitude_m, kitchen);
        if (!answer.ok) {
          return (
            <Box key={size} role="note" sx={{ my: 1, borderLeft: 4, borderColor: 'ox.main', pl: 1.5 }}>
              <strong>{answer.what}</strong> {answer.why} {answer.next}
            </Box>
          );
        }
        const { time } = answer;
        const added = time.minutes - time.seaLevel_min;
        const steam = steamFault(time);
        const hotFill = time.method === 'hot-fill-hold';
        return (
          <Box key={size} sx={{ mb: 1.5 }}>
            <Box sx={{ display: 'flex', gap: 2, alignItems: 'baseline' }}>
              <Box sx={{ fontSize: '3rem', fontWeight: 700, lineHeight: 1, whiteSpace: 'nowrap' }}>
                {numberText(time.minutes, kitchen)}
                <Box component="span" sx={{ fontSize: '1.2rem', fontWeight: 500 }}>
                  {' '}
                  min
                </Box>
              </Box>
              <Soft>
                {jarSize(size).name}, {hotFill ? 'hot fill and hold' : `${time.pack} pack`}, {time.jars} jars
                <br />
                {hotFill && time.fill
                  ? `held at ${temperatureText(time.fill.temp_C, kitchen)} or above`
                  : `${numberText(time.seaLevel_min, kitchen)} at sea level`}
                {added > 0
                  ? `, +${numberText(added, kitchen)} at ${altitudeText(kitchen.altitude_m, kitchen)}`
                  : ''}
              </Soft>
            </Box>
            {time.borrowedFrom && (
              <Typography sx={{ mt: 0.5 }}>
                The time of the next size up, {jarSize(time.borrowedFrom).plural}.
              </Typography>
            )}
            <Box
              sx={{
                mt: 1,
                pt: 1,
                borderTop: 1,
                borderColor: 'rule.main',
                color: 'text.secondary',
                fontSize: '0.95rem',
              }}
            >
              {hasGel && (
                <>
                  Gel point{' '}
                  <Box component="strong" sx={{ color: 'text.primary' }}>
                    {temperatureText(gelPoint_C(kitchen.altitude_m, kitchen.thermometerError_C), kitchen)}
                  </Box>
                  {kitchen.thermometerError_C !== 0 && ' on your thermometer'} ·{' '}
                </>
              )}
              headspace <Fractions text={depthText(time.headspace_mm, kitchen)} />
              {hotFill
                ? ` · closure: ${time.fill?.closure}`
                : ` · water ${depthText(waterCover_mm(time.minutes), kitchen)} over the lids`}
              <br />
              {time.jars === 'sterile'
                ? `Sterile jars: boiled ${sterilise_min(kitchen.altitude_m)} min here. ${cleanForm(time, kitchen)}`
                : 'Clean hot jars are enough. '}
              {!hotFill &&
                (steam === null
                  ? 'Steam may be used instead, vented and in the right zone. '
                  : `No steam: ${steam} `)}
              <br />
              {time.source.title}, {time.source.edition}, {time.source.part}, {time.band}.
              {time.source.fromMemory && ' Recalled from memory: hold it against the book.'}
            </Box>
          </Box>
        );
      })}
      <EntryConditions recipe={recipe} />
    </Sheet>
  );
}

/** The clean-jar form that stands beside a time for sterile jars. */
function cleanForm({ rowId, jarSize: size }: ScheduledTime, kitchen: Kitchen): string {
  const form = PROCESS_ENTRIES.find(e => e.cleanFormOf === rowId.split('/')[0]);
  const answer = form && processByEntry(form.id, size, kitchen.altitude_m);
  return answer?.ok
    ? `Or clean jars and ${numberText(answer.time.minutes, kitchen)} min, by the entry "${form?.product}". `
    : '';
}

/** What else the published entry asks for: its conditions, and acid in each jar. */
function EntryConditions({ recipe }: { recipe: Recipe }) {
  const { authority } = recipe;
  const entryId =
    authority.grade === 'own'
      ? authority.entryId
      : authority.grade === 'tested publication' && authority.time.kind === 'entry'
        ? authority.time.entryId
        : null;
  const entry = entryId === null ? undefined : processEntry(entryId);
  if (!entry) return null;
  const dose = entry.acidInEachPint;
  const covers = authority.grade === 'own' ? [] : coverText(entry);
  const said = [
    entry.conditions,
    dose
      ? `Acid in each pint: ${dose.bottledLemon_tbsp} Tbsp bottled lemon juice, or ${mixedText(dose.citricAcid_tsp, true)} tsp citric acid${dose.vinegar_tbsp === null ? '' : `, or ${dose.vinegar_tbsp} Tbsp of 5 % vinegar`}; other jars in proportion.`
      : '',
  ].filter(Boolean);
  return (
    <>
      {said.length > 0 && (
        <Typography sx={{ fontSize: '0.95rem' }}>
          <strong>The entry asks:</strong> <Fractions text={said.join(' ')} />
        </Typography>
      )}
      {covers.map((text, i) => (
        <Typography key={text} sx={{ fontSize: '0.95rem', mt: 0.75, color: 'text.secondary' }}>
          <strong>{say(i === 0 ? 'entry.covers' : 'entry.coversToo')}</strong> <Fractions text={text} />
        </Typography>
      ))}
    </>
  );
}

/** What it rests on, and whether it may be sold. */
export function AuthorityPanel({
  recipe,
  route,
  recipeId,
  number,
}: {
  recipe: Recipe;
  route: RouteToSale;
  recipeId: string;
  number: number;
}) {
  const { kitchen } = useHere();
  return (
    <Sheet
      title="Authority"
      aside={
        <Tag tone={route.open ? 'leaf' : 'ox'}>{route.open ? 'may be cooked for sale' : 'not for sale'}</Tag>
      }
    >
      <Typography sx={{ mb: 0.5 }}>{route.what}</Typography>
      <Typography sx={{ color: 'text.secondary' }}>
        {route.why} {route.next}
      </Typography>
      {recipe.authority.grade === 'letter' && (
        <Box component="ul" sx={{ color: 'text.secondary', mt: 0.5, mb: 0, pl: 2.5 }}>
          <li>{recipe.authority.authority}</li>
          <li>pH at most {numberText(recipe.authority.maxPh, kitchen)}</li>
          {letterSays(recipe, kitchen).map(part => (
            <li key={part}>{part}</li>
          ))}
        </Box>
      )}
      <Typography sx={{ color: 'text.secondary', mt: 1, fontSize: '0.92rem' }}>
        A published time is not an approval: your local authority decides what may be sold.
      </Typography>
      {route.open && <PageProof recipe={recipe} recipeId={recipeId} number={number} />}
    </Sheet>
  );
}
