import { ofNames } from '@cocotte/core/measure';
import { JAR_SIZES, type JarSizeId } from '@cocotte/core/jars';
import { SET_BY, type SetBy } from '@cocotte/core/recipes';
import { METHOD_CHOICES, type Method, PRODUCTS, type Product, entriesFor } from '@cocotte/core/times';
import { Box, Button, Checkbox, FormControlLabel } from '@mui/material';
import { v7 } from 'uuid';
import { Sheet } from '../../shell/parts.tsx';
import { RecipePick } from '../RecipePick.tsx';
import type { Draft } from './draft.ts';
import { type At, Choice, Field, columns } from './fields.tsx';

interface Props {
  draft: Draft;
  set: (key: string, part: Partial<Draft>) => void;
  at: At;
}

/** Names, shelf of the book, and how it is made as far as safety hangs on it. */
export function ProductFields({ draft, set, at, recipeId }: Props & { recipeId: string }) {
  const field = (key: keyof Draft & string, label: string, path: string = key, hint = '') => (
    <Field
      label={label}
      value={draft[key]}
      onText={t => set(key, { [key]: t })}
      fault={at(path)}
      hint={hint}
    />
  );
  const method = <K extends keyof Method>(key: K, label: string) => (
    <Choice<Method[K]>
      label={label}
      value={draft.method[key]}
      of={METHOD_CHOICES[key] as readonly string[] as readonly Method[K][]}
      onPick={value => set('', { method: { ...draft.method, [key]: value } })}
    />
  );
  return (
    <Sheet title="What it is">
      <Box sx={columns('2fr 90px 2fr 1.2fr')}>
        {field('name', 'Name')}
        {field('code', 'Code')}
        {field('statementOfIdentity', 'Statement of identity')}
        <Choice<Product>
          label="Kind of product"
          value={draft.product}
          of={PRODUCTS}
          onPick={product => set('', { product })}
        />
      </Box>
      <Box sx={{ ...columns('1fr 1.6fr 1.4fr'), mt: 1.5 }}>
        {field('family', 'Family')}
        {field('tags', 'Tags', 'tags', 'with commas between')}
        <RecipePick
          label="A variant of"
          value={draft.variantOf}
          onPick={variantOf => set('', { variantOf })}
          leaveOut={recipeId}
          rootsOnly
          fault={at('variantOf')}
        />
      </Box>
      <Box sx={{ ...columns('1fr 1fr 1fr 1fr 1fr 1.2fr'), mt: 1.5 }}>
        {method('cut', 'Cut')}
        {method('peel', 'Peel')}
        {method('strain', 'Strain')}
        {method('liquid', 'Packing liquid')}
        {method('pack', 'Packed')}
        <Choice<SetBy> label="Set by" value={draft.setBy} of={SET_BY} onPick={setBy => set('', { setBy })} />
      </Box>
    </Sheet>
  );
}

/** What it makes, in which jars, with what net contents; packing of pieces; other outlets of the pot. */
export function JarFields({
  draft,
  set,
  at,
  noTime,
}: Props & { noTime: (size: JarSizeId) => string | null }) {
  const field = (key: keyof Draft & string, label: string, path: string = key) => (
    <Field label={label} value={draft[key]} onText={t => set(key, { [key]: t })} fault={at(path)} />
  );
  const names = ofNames(JAR_SIZES.map(s => [s.id, s.name]));
  return (
    <Sheet title="Jars">
      <Box sx={columns('1fr 1fr 1fr 1fr')}>
        {field('makesCount', 'As written it makes', 'makes.count')}
        <Choice<JarSizeId>
          label="Of"
          value={draft.makesSize}
          of={JAR_SIZES.map(s => s.id)}
          words={ofNames(JAR_SIZES.map(s => [s.id, s.plural]))}
          onPick={makesSize =>
            set('', {
              makesSize,
              jars: draft.jars.some(j => j.size === makesSize)
                ? draft.jars
                : [...draft.jars, { size: makesSize, net: '', kind: 'weight' }],
            })
          }
          fault={at('jars')}
        />
        {field('shelfLife', 'Shelf life, months', 'shelfLife_months')}
        {field('readyAfter', 'Ready after, days', 'readyAfter_days')}
      </Box>
      {draft.jars.map((j, i) => {
        const put = (part: Partial<typeof j>) =>
          set(part.net === undefined ? '' : `net ${j.size}`, {
            jars: draft.jars.map((x, k) => (k === i ? { ...x, ...part } : x)),
          });
        return (
          <Box key={j.size} sx={{ ...columns('1fr 1fr 1fr auto'), mt: 1.5 }}>
            <Box sx={{ alignSelf: 'center' }}>{names[j.size]}</Box>
            <Field
              hint={noTime(j.size)}
              label={`Net contents of a ${j.size}`}
              value={j.net}
              onText={net => put({ net })}
              fault={at(`jars[${i}].net`)}
            />
            <Choice
              label="In"
              value={j.kind}
              of={['weight', 'volume']}
              words={{ weight: 'ounces by weight', volume: 'fluid ounces' }}
              onPick={kind => put({ kind })}
            />
            <Button
              variant="outlined"
              disabled={j.size === draft.makesSize}
              onClick={() => set('', { jars: draft.jars.filter((_, k) => k !== i) })}
              aria-label={`Leave out ${j.size} jars`}
            >
              Leave out
            </Button>
          </Box>
        );
      })}
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mt: 1.5 }}>
        {JAR_SIZES.filter(s => !draft.jars.some(j => j.size === s.id)).map(s => (
          <Button
            key={s.id}
            size="small"
            variant="outlined"
            onClick={() => set('', { jars: [...draft.jars, { size: s.id, net: '', kind: 'weight' }] })}
          >
            Add {s.plural}
          </Button>
        ))}
      </Box>
      <FormControlLabel
        sx={{ mt: 1.5 }}
        control={<Checkbox checked={draft.packed} onChange={(_, on) => set('', { packed: on })} />}
        label="Pieces are packed into jars and covered with a liquid"
      />
      {draft.packed && (
        <Box sx={{ ...columns('1fr 1fr 1fr'), mt: 1 }}>
          {field('perPint', 'Pieces in a pint, grams', 'packing.perPint_g')}
          {field('pieceDensity', 'A mL of pieces weighs, grams', 'packing.pieceDensity_gPerMl')}
          {field('spare', 'Spare liquid, %', 'packing.spareShare')}
        </Box>
      )}
      {draft.outlets.map((o, i) => {
        const put = (key: string, part: Partial<typeof o>) =>
          set(key && `${key} ${o.id}`, {
            outlets: draft.outlets.map((x, k) => (k === i ? { ...x, ...part } : x)),
          });
        return (
          <Box
            key={o.id}
            role="group"
            aria-label={`Outlet ${i + 1}`}
            sx={{ ...columns('2fr 1fr 1.4fr 1.2fr 2fr auto'), mt: 1.5 }}
          >
            <Field
              label="Also gives"
              value={o.name}
              onText={name => put('name', { name })}
              fault={at(`outlets[${i}].name`)}
            />
            <Field
              label="Share of the pot, %"
              value={o.share}
              onText={s => put('share', { share: s })}
              fault={at(`outlets[${i}].share`) ?? at('outlets')}
            />
            <Choice
              label="It goes"
              value={o.use}
              of={['jars', 'refrigerator', 'ingredient']}
              words={{
                jars: 'into jars of its own',
                refrigerator: 'to the refrigerator',
                ingredient: 'back to stores as an ingredient',
              }}
              onPick={use => put('', { use })}
            />
            {o.use === 'jars' ? (
              <Choice<JarSizeId>
                label="Jar"
                value={o.jarSize}
                of={JAR_SIZES.map(s => s.id)}
                words={names}
                onPick={jarSize => put('', { jarSize })}
                fault={at(`outlets[${i}].jarSize`)}
              />
            ) : (
              <span />
            )}
            {o.use === 'jars' ? (
              <Choice
                label="Its published entry"
                value={o.entryId}
                of={PRODUCTS.flatMap(p => entriesFor(p))
                  .map(e => e.id)
                  .filter((id, k, all) => all.indexOf(id) === k)}
                words={ofNames(
                  PRODUCTS.flatMap(p => entriesFor(p)).map(e => [e.id, `${e.product} (${e.source.part})`]),
                )}
                empty="none"
                onPick={entryId => put('', { entryId })}
              />
            ) : (
              <span />
            )}
            <Button
              variant="outlined"
              aria-label={`Remove outlet ${i + 1}`}
              onClick={() => set('', { outlets: draft.outlets.filter(x => x.id !== o.id) })}
            >
              Remove
            </Button>
          </Box>
        );
      })}
      <Box sx={{ mt: 1.5 }}>
        <Button
          size="small"
          variant="outlined"
          onClick={() =>
            set('', {
              outlets: [
                ...draft.outlets,
                { id: v7(), name: '', share: '20', use: 'refrigerator', jarSize: '', entryId: '' },
              ],
            })
          }
        >
          Add another outlet of the pot
        </Button>
      </Box>
    </Sheet>
  );
}
