import {
  type Balance,
  type Process,
  acidIn,
  barrierIn100_g,
  brixOf,
  knownOf,
  massIn,
  pictureOf,
  together,
  weakestJar,
} from '@cocotte/core/balance';
import { jarSize } from '@cocotte/core/jars';
import type { Kitchen } from '@cocotte/core/kitchen';
import { numberText } from '@cocotte/core/measure';
import { Box, useMediaQuery } from '@mui/material';
import { type ReactNode, useMemo, useState } from 'react';
import { Toggle } from '../controls.tsx';
import { List } from '../List.tsx';
import { Sheet, Soft } from '../parts.tsx';
import { Picture } from './Picture.tsx';
import { KIND_WORDS, placeName, weightIn } from './words.ts';

/** Where everything goes, or went: the balance as a picture or as a table, and what stands in a jar. */
export function BalancePanel({
  title,
  aside,
  process,
  made,
  kitchen,
  jars = null,
}: {
  title: string;
  aside?: ReactNode;
  process: Process;
  made: Balance;
  kitchen: Pick<Kitchen, 'measures' | 'locale'>;
  /** How many jars, where a range is known. */
  jars?: { figure: string; words: string } | null;
}) {
  const roomy = useMediaQuery('(min-width: 700px)');
  const [shown, setShown] = useState<'picture' | 'table' | null>(null);
  const as = shown ?? (roomy ? 'picture' : 'table');
  const picture = useMemo(() => pictureOf(process, made), [process, made]);
  const name = (id: string) => {
    const place = picture.places.find(p => p.id === id);
    return place ? placeName(place, process, made) : '';
  };
  if (picture.flows.length === 0) return null;
  const leaves = picture.places.filter(p => !picture.flows.some(f => f.from === p.id));
  const label = `${title}: ${leaves.map(p => `${placeName(p, process, made)} ${weightIn(kitchen, p.mass_g)}`).join(', ')}. The table says the same.`;
  return (
    <Sheet title={title} aside={aside}>
      <Box sx={{ display: 'flex', justifyContent: 'flex-end', mb: 1 }}>
        <Toggle label="Show it as" value={as} of={['picture', 'table'] as const} onPick={setShown} />
      </Box>
      {as === 'picture' ? (
        <Picture picture={picture} process={process} made={made} kitchen={kitchen} label={label} />
      ) : (
        <List
          label={title}
          rows={picture.flows.map((f, i) => ({ ...f, i }))}
          keyOf={f => f.i}
          columns={[
            { head: 'From', cell: f => name(f.from), row: true },
            { head: 'To', cell: f => name(f.to) },
            { head: 'What', cell: f => KIND_WORDS[f.kind], from: 'sm' },
            { head: 'Weight', figure: true, cell: f => weightIn(kitchen, f.mass_g), order: f => f.mass_g },
          ]}
        />
      )}
      <InJar process={process} made={made} kitchen={kitchen} jars={jars} />
    </Sheet>
  );
}

/** What stands in one jar, and its acid. */
function InJar({
  process,
  made,
  kitchen,
  jars,
}: {
  process: Process;
  made: Balance;
  kitchen: Pick<Kitchen, 'measures' | 'locale'>;
  jars: { figure: string; words: string } | null;
}) {
  const [jar] = made.jars;
  if (!jar) return null;
  const n = (value: number, places: number) => numberText(value, kitchen, places);
  const parts = together(jar.each);
  const net_g = massIn(jar.each);
  const acid = acidIn(process, jar.each);
  const weakest = weakestJar(process, made);
  const tight = barrierIn100_g(process, jar.tightest);
  const packed = jar.pieces_g > 0;
  const known = knownOf(process, jar.each);
  const tiles: [figure: string, words: string, more: string][] = [
    [
      weightIn(kitchen, net_g),
      `in a ${jarSize(jar.size).name}`,
      packed
        ? `${weightIn(kitchen, jar.pieces_g)} of pieces, ${weightIn(kitchen, net_g - jar.pieces_g)} around them`
        : '',
    ],
    ...(acid.asAcetic_g > 0
      ? ([
          [
            `${n((acid.asAcetic_g / net_g) * 100, 2)} g in 100 g`,
            'acid that was added, as acetic',
            packed && weakest && tight < weakest.average_g - 0.005 ? `tightest jar ${n(tight, 2)} g` : '',
          ],
        ] as [string, string, string][])
      : []),
    ...(parts.salt_g / net_g > 0.0005
      ? ([[`${n((parts.salt_g / net_g) * 100, 1)} %`, 'salt', '']] as [string, string, string][])
      : []),
    ...(brixOf(parts) > 10
      ? ([[`${n(brixOf(parts), 0)} °Brix`, 'soluble solids', 'give or take two']] as [
          string,
          string,
          string,
        ][])
      : []),
    ...(jars ? ([[jars.figure, 'jars', jars.words]] as [string, string, string][]) : []),
  ];
  return (
    <>
      <Box
        component="dl"
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fit, minmax(165px, 1fr))',
          gap: 2,
          m: 0,
          mt: 2,
          pt: 2,
          borderTop: 1,
          borderColor: 'rule.main',
        }}
      >
        {tiles.map(([figure, words, more]) => (
          <Box key={words} sx={{ display: 'flex', flexDirection: 'column' }}>
            <Box component="dt" sx={{ color: 'text.secondary', fontSize: '0.92rem' }}>
              {words}
            </Box>
            <Box component="dd" sx={{ m: 0, fontSize: '1.35rem', fontWeight: 700, lineHeight: 1.25 }}>
              {figure}
              {more && (
                <Box
                  component="span"
                  sx={{ display: 'block', fontSize: '0.92rem', fontWeight: 400, color: 'text.secondary' }}
                >
                  {more}
                </Box>
              )}
            </Box>
          </Box>
        ))}
      </Box>
      <Box sx={{ mt: 1.5 }}>
        <Soft>
          {known === 'planned'
            ? 'As planned; nothing of it is proof of what is in a jar.'
            : `By what was ${known === 'drawn' ? 'drawn from lots' : known}.`}
        </Soft>
      </Box>
    </>
  );
}
