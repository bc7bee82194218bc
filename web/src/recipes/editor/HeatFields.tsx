import { JAR_SIZES, type JarSizeId, jarSize } from '@cocotte/core/jars';
import { Button, Typography } from '@mui/material';
import { Figure, Pick } from '../../kit/fields.tsx';
import { useRows } from '../../kit/form.ts';
import { Cells } from '../../kit/layout.tsx';
import { useHere } from '../../shell/session.tsx';
import type { DraftForm } from './form.ts';

/** The headspace an authority states. */
export function Headspace({ form }: { form: DraftForm }) {
  const { kitchen } = useHere();
  return (
    <Figure
      at={form.at('headspace_mm')}
      label="Headspace"
      unit={kitchen.measures === 'US' ? 'inches' : 'mm'}
    />
  );
}

/** Pack and headspace, which belong together. */
export function PackAndHeadspace({ form }: { form: DraftForm }) {
  return (
    <Cells narrow="1fr 1fr" gap={1.5} mt={1.5} sx={{ maxWidth: 420 }}>
      <Pick at={form.at('pack')} label="Pack" of={['hot', 'raw']} />
      <Headspace form={form} />
    </Cells>
  );
}

/** A time for sea level, with the rule that adds the altitude. */
export function SeaLevel({ form }: { form: DraftForm }) {
  return (
    <>
      <PackAndHeadspace form={form} />
      <MinutesRows form={form} name="seaLevel" labels={['Minutes at sea level']} />
      <Typography sx={{ mt: 1, color: 'text.secondary' }}>
        Here the longer of two rules of the trade is used: a minute for each started 1,000 ft (two where the
        time is over 20 minutes), or the ladder of +5, +10 and +15.
      </Typography>
    </>
  );
}

/** Minutes by jar size, one figure for each altitude band. */
export function MinutesRows({
  form,
  name,
  labels,
}: {
  form: DraftForm;
  name: 'letter' | 'seaLevel';
  labels: string[];
}) {
  const rows = useRows(form.form.control, name);
  const typed = form.typed(name);
  const free = JAR_SIZES.filter(s => !typed.some(r => r.size === s.id));
  const next = free[0]?.id;
  return (
    <>
      {rows.fields.map((row, i) => {
        const size = typed[i]?.size ?? (row.size as JarSizeId);
        return (
          <Cells
            key={row.key}
            wide={`1fr ${labels.map(() => '1fr').join(' ')} auto`}
            narrow="1fr 1fr"
            gap={1.5}
            mt={1.5}
          >
            <Pick
              at={form.at(`${name}.${i}.size`)}
              label="Jar"
              of={[size, ...free.map(s => s.id)].map(s => [s, jarSize(s).name] as const)}
            />
            {labels.map((label, k) => (
              <Figure key={label} at={form.at(`${name}.${i}.minutes.${k}`)} label={label} />
            ))}
            <Button
              variant="outlined"
              disabled={rows.fields.length === 1}
              aria-label={`Leave out ${jarSize(size).plural} from the authority`}
              onClick={() => rows.remove(i)}
            >
              Leave out
            </Button>
          </Cells>
        );
      })}
      {next && (
        <Button
          size="small"
          variant="outlined"
          sx={{ mt: 1.5 }}
          onClick={() => rows.append({ minutes: labels.map(() => ''), size: next })}
        >
          Add a jar size with its minutes
        </Button>
      )}
    </>
  );
}
