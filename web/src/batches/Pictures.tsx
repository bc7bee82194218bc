import { openPaper } from '@cocotte/contract';
import { PAPER_TYPES } from '@cocotte/core/kitchen';
import { type Fault, instantText } from '@cocotte/core/measure';
import { Box, Button, Link } from '@mui/material';
import { useRef, useState } from 'react';
import { FreeText } from '../kit/controls.tsx';
import { Line } from '../kit/layout.tsx';
import { Faults, Sheet, Soft } from '../kit/parts.tsx';
import { addressOf } from '../shell/call.ts';
import { useHere, useMay } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import type { OpenBatch } from './open-batch.ts';
import { usePictures } from './pictures.ts';

/** Pictures that lie beside the record, and the way to add one by camera or from a file; they wait here without a connection. */
export function Pictures({
  batch,
  of = null,
  onDone,
}: {
  batch: OpenBatch;
  /** The entry a new one shows; null for the batch. */
  of?: { id: string; words: string } | null;
  onDone?: () => void;
}) {
  const { kitchen } = useHere();
  const cook = useMay('cook');
  const { waiting, add } = usePictures(batch);
  const [text, setText] = useState('');
  const [faults, setFaults] = useState<Fault[]>([]);
  const [busy, setBusy] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const { pictures } = batch.state;
  if (!cook && pictures.length === 0) return null;
  const keep = async (chosen: File) => {
    setBusy(true);
    const found = await add(chosen, of?.id ?? null, text.trim().slice(0, 300));
    setBusy(false);
    setFaults(found);
    if (found.length > 0) return;
    setText('');
    onDone?.();
  };
  return (
    <Sheet title={say('pictures.title')}>
      {pictures.length > 0 && (
        <Box
          component="ul"
          aria-label={say('pictures.title')}
          sx={{
            listStyle: 'none',
            p: 0,
            m: 0,
            mb: 1.5,
            display: 'grid',
            gridTemplateColumns: 'repeat(auto-fill, minmax(140px, 1fr))',
            gap: 1.5,
          }}
        >
          {pictures.map(p => (
            <li key={p.eventId}>
              <Link href={addressOf(openPaper, { paperId: p.paperId })} target="_blank" rel="noreferrer">
                <Box
                  component="img"
                  loading="lazy"
                  src={addressOf(openPaper, { paperId: p.paperId })}
                  alt={p.text || say('pictures.one', { at: instantText(p.by.at_ms, kitchen) })}
                  sx={{
                    width: '100%',
                    aspectRatio: '4 / 3',
                    objectFit: 'cover',
                    border: 1,
                    borderColor: 'rule.strong',
                    display: 'block',
                  }}
                />
              </Link>
              <Soft>
                {instantText(p.by.at_ms, kitchen)}
                {p.text && `: ${p.text}`}
              </Soft>
            </li>
          ))}
        </Box>
      )}
      {cook && (
        <>
          {of && <Soft>{say('pictures.of', { what: of.words })}</Soft>}
          <FreeText value={text} onText={setText} label={say('pictures.words')} fullWidth sx={{ mt: 1 }} />
          <Line mt={1}>
            <Button
              variant="outlined"
              sx={{ minHeight: 56 }}
              disabled={busy}
              onClick={() => file.current?.click()}
            >
              {say(busy ? 'pictures.keeping' : 'pictures.add')}
            </Button>
            {waiting > 0 && (
              <span role="status">
                <Soft>{say('pictures.waiting', { n: waiting })}</Soft>
              </span>
            )}
          </Line>
          <input
            ref={file}
            type="file"
            hidden
            aria-label={say('pictures.add')}
            accept={PAPER_TYPES.filter(t => t !== 'application/pdf').join(',')}
            onChange={e => {
              const chosen = e.target.files?.[0];
              e.target.value = '';
              if (chosen) void keep(chosen);
            }}
          />
        </>
      )}
      <Faults faults={faults} />
    </Sheet>
  );
}
