import { JAR_SIZES, type JarSizeId, jarSize } from '@cocotte/core/jars';
import { PRODUCTS, entriesFor } from '@cocotte/core/times';
import { Box, Button } from '@mui/material';
import { v7 } from 'uuid';
import { Figure, Pick, Text, Tick } from '../../kit/fields.tsx';
import { useRows } from '../../kit/form.ts';
import { Cells, Line } from '../../kit/layout.tsx';
import { Sheet } from '../../kit/parts.tsx';
import type { DraftForm } from './form.ts';

/** Every published entry, once. */
const ENTRIES = [...new Map(PRODUCTS.flatMap(p => entriesFor(p)).map(e => [e.id, e])).values()];
/** Names of jars are long: on a phone each stands in a line of its own. */
const wholeLine = { gridColumn: { xs: '1 / -1', sm: 'auto' } };
const newJar = (size: JarSizeId) => ({ net: '', size, kind: 'weight' as const });

/** What it makes, in which jars, with what net contents; packing of pieces; other outlets of the pot. */
export function JarFields({
  form,
  noTime,
}: {
  form: DraftForm;
  /** Why a size has no processing time, or null. */
  noTime: (size: JarSizeId) => string | null;
}) {
  const { at } = form;
  const jars = useRows(form.form.control, 'jars');
  const outlets = useRows(form.form.control, 'outlets');
  const draft = form.all();
  return (
    <Sheet title="Jars">
      <Cells wide="1fr 1fr 1fr 1fr" narrow="1fr 1fr" gap={1.5} mt={0}>
        <Figure at={at('makes.count')} label="As written it makes" />
        <Pick
          at={at('makes.size')}
          label="Of"
          of={JAR_SIZES.map(s => [s.id, s.plural] as const)}
          onPick={size => {
            if (!draft.jars.some(j => j.size === size)) jars.append(newJar(size), { shouldFocus: false });
          }}
        />
        <Figure at={at('shelfLife_months')} label="Shelf life" unit="months" />
        <Figure at={at('readyAfter_days')} label="Ready after" unit="days" />
      </Cells>
      {jars.fields.map((j, i) => (
        <Cells key={j.size} wide="1fr 1.2fr 1fr auto" narrow="1fr 1fr" gap={1.5} mt={1.5}>
          <Box sx={{ alignSelf: 'center', ...wholeLine }}>{jarSize(j.size).name}</Box>
          <Figure
            at={at(`jars.${i}.net`)}
            label={`Net contents of a ${j.size}`}
            hint={noTime(j.size)}
            sx={wholeLine}
          />
          <Pick
            at={at(`jars.${i}.kind`)}
            label="In"
            of={[
              ['weight', 'ounces by weight'],
              ['volume', 'fluid ounces'],
            ]}
          />
          <Button
            variant="outlined"
            disabled={j.size === draft.makes.size}
            onClick={() => jars.remove(i)}
            aria-label={`Leave out ${j.size} jars`}
          >
            Leave out
          </Button>
        </Cells>
      ))}
      <Line mt={1.5}>
        {JAR_SIZES.filter(s => !draft.jars.some(j => j.size === s.id)).map(s => (
          <Button key={s.id} size="small" variant="outlined" onClick={() => jars.append(newJar(s.id))}>
            Add {s.plural}
          </Button>
        ))}
      </Line>
      <Tick
        at={at('packed')}
        label="Pieces are packed into jars and covered with a liquid"
        sx={{ mt: 1.5 }}
      />
      {draft.packed && (
        <Cells wide="1fr 1fr 1fr" gap={1.5}>
          <Figure at={at('packing.perPint_g')} label="Pieces in a pint" unit="g" />
          <Figure at={at('packing.pieceDensity_gPerMl')} label="A mL of pieces weighs" unit="g" />
          <Figure at={at('packing.spareShare')} label="Spare liquid" unit="%" />
        </Cells>
      )}
      {outlets.fields.map((o, i) => {
        const jarred = draft.outlets[i]?.use === 'jars';
        return (
          <Cells
            key={o.key}
            role="group"
            aria-label={`Outlet ${i + 1}`}
            wide="2fr 1.2fr 1.4fr 1.2fr 2fr auto"
            narrow="1fr 1fr"
            gap={1.5}
            mt={1.5}
          >
            <Text at={at(`outlets.${i}.name`)} label="Also gives" />
            <Figure at={at(`outlets.${i}.share`)} label="Share of the pot" unit="%" />
            <Pick
              at={at(`outlets.${i}.use`)}
              label="It goes"
              of={[
                ['jars', 'into jars of its own'],
                ['refrigerator', 'to the refrigerator'],
                ['ingredient', 'back to stores as an ingredient'],
              ]}
            />
            {jarred ? (
              <Pick
                at={at(`outlets.${i}.jarSize`)}
                label="Jar"
                of={JAR_SIZES.map(s => [s.id, s.name] as const)}
              />
            ) : (
              <span />
            )}
            {jarred ? (
              <Pick
                at={at(`outlets.${i}.entryId`)}
                label="Its published entry"
                of={[['', 'none'], ...ENTRIES.map(e => [e.id, `${e.product} (${e.source.part})`] as const)]}
              />
            ) : (
              <span />
            )}
            <Button
              variant="outlined"
              aria-label={`Remove outlet ${i + 1}`}
              onClick={() => outlets.remove(i)}
            >
              Remove
            </Button>
          </Cells>
        );
      })}
      <Button
        size="small"
        variant="outlined"
        sx={{ mt: 1.5 }}
        onClick={() =>
          outlets.append({
            name: '',
            share: '20',
            id: v7(),
            use: 'refrigerator',
            jarSize: '',
            entryId: '',
          })
        }
      >
        Add another outlet of the pot
      </Button>
    </Sheet>
  );
}
