import { addPaper, listPapers, openPaper, removePaper } from '@cocotte/contract';
import { PAPER_TYPES, type Paper } from '@cocotte/core/kitchen';
import { type Fault, dayOf, dayText } from '@cocotte/core/measure';
import { Box, Button, Link } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { v7 } from 'uuid';
import { CallError, addressOf, call, faultsOf } from '../shell/call.ts';
import { useHere, useMay } from '../shell/session.tsx';
import { say } from '../words/views.ts';
import { Faults, Soft } from './parts.tsx';
import { readyToSend } from './picture.ts';

/** The papers of this kitchen, pictures and documents. */
export const usePapers = () => useQuery({ queryKey: ['papers'], queryFn: () => call(listPapers) });

/** A sheet of paper with its corner turned down. */
const Leaf = () => (
  <svg width={16} height={18} viewBox="0 0 16 18" aria-hidden="true">
    <path
      d="M2 1.500h8l4 4v11H2zM10 1.500v4h4M5 9.500h6M5 12.500h4"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.500"
      strokeLinejoin="round"
    />
  </svg>
);

/** Papers that show one thing: what lies there, and the way to add a picture or a PDF. */
export function Papers({
  subject,
  what,
  first = false,
}: {
  subject: string;
  /** What they show, in words, for whoever reads by ear. */
  what: string;
  /** Nothing goes on before one is here. */
  first?: boolean;
}) {
  const { kitchen } = useHere();
  const cook = useMay('cook');
  const owner = useMay('owner');
  const client = useQueryClient();
  const { data } = usePapers();
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const [busy, setBusy] = useState(false);
  /** A file that did not arrive. */
  const [waits, setWaits] = useState<File | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const here = data?.papers.filter(p => p.subject === subject) ?? [];
  const doing = async (work: () => Promise<Fault | null>) => {
    setBusy(true);
    try {
      const fault = await work();
      setFaults(fault ? [fault] : []);
      await client.invalidateQueries({ queryKey: ['papers'] });
    } catch (error) {
      setFaults(faultsOf(error));
    } finally {
      setBusy(false);
    }
  };
  const attach = (chosen: File) =>
    doing(async () => {
      const ready = await readyToSend(chosen);
      if (!ready.ok) return ready.fault;
      setWaits(chosen);
      await call(addPaper, {
        params: { paperId: v7() },
        query: { subject, name: chosen.name.slice(0, 120) || 'paper' },
        body: ready.value,
      }).catch((error: unknown) => {
        // What was refused is refused again; only what did not arrive is worth sending once more.
        if (!(error instanceof CallError && error.away)) setWaits(null);
        throw error;
      });
      setWaits(null);
      return null;
    });
  const remove = (paper: Paper) =>
    doing(async () => {
      await call(removePaper, { params: { paperId: paper.id } });
      return null;
    });
  if (!data || (here.length === 0 && !cook)) return null;
  return (
    <Box sx={{ mt: 1 }}>
      {here.length > 0 && (
        <Box
          component="ul"
          aria-label={say('papers.for', { what })}
          sx={{ listStyle: 'none', p: 0, m: 0, mb: 0.5 }}
        >
          {here.map(paper => (
            <Box key={paper.id} component="li" sx={{ display: 'flex', alignItems: 'center', gap: 0.75 }}>
              <Leaf />
              <Link
                href={addressOf(openPaper, { paperId: paper.id })}
                target="_blank"
                rel="noreferrer"
                sx={{ overflowWrap: 'anywhere' }}
              >
                {paper.name}
              </Link>
              <Soft>
                {paper.person}, {dayText(dayOf(Date.parse(paper.addedAt), kitchen.zone), kitchen)}
              </Soft>
              {owner && (
                <Button
                  size="small"
                  aria-label={say('papers.remove', { name: paper.name })}
                  disabled={busy}
                  onClick={() => void remove(paper)}
                >
                  {say('papers.out')}
                </Button>
              )}
            </Box>
          ))}
        </Box>
      )}
      {cook && (
        <>
          <Button
            size="small"
            variant={first && here.length === 0 ? 'contained' : 'text'}
            startIcon={<Leaf />}
            disabled={busy}
            onClick={() => file.current?.click()}
          >
            {say(busy ? 'papers.attaching' : first ? 'papers.attach.letter' : 'papers.attach')}
          </Button>
          <input
            ref={file}
            type="file"
            hidden
            aria-label={say('papers.for', { what })}
            accept={PAPER_TYPES.join(',')}
            onChange={e => {
              const chosen = e.target.files?.[0];
              e.target.value = '';
              if (chosen) void attach(chosen);
            }}
          />
        </>
      )}
      <Faults faults={faults} />
      {waits && !busy && (
        <Button size="small" variant="outlined" onClick={() => void attach(waits)}>
          {say('papers.again', { name: waits.name })}
        </Button>
      )}
    </Box>
  );
}
