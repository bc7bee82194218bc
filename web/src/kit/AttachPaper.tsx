import { addPaper } from '@cocotte/contract';
import { PAPER_TYPES } from '@cocotte/core/kitchen';
import type { Fault } from '@cocotte/core/measure';
import { Box, Button } from '@mui/material';
import { useRef, useState } from 'react';
import { v7 } from 'uuid';
import { call, faultsOf } from '../shell/call.ts';
import { misread, say } from '../words/views.ts';
import { Faults } from './parts.tsx';
import { readyToSend } from './picture.ts';

/** A paper that was handed in, by the hash of what is kept of it. */
export interface Attached {
  paperId: string;
  sha256: string;
  name: string;
}

/** One paper that goes with an entry: a picture or a PDF, handed in at once, and named by its hash in the entry. */
export function AttachPaper({
  subject,
  label,
  attached,
  kinds = PAPER_TYPES,
  onAttached,
}: {
  subject: string;
  /** What it shows, as the button says it. */
  label: string;
  attached: Attached | null;
  /** Kinds of file that serve here. */
  kinds?: readonly string[];
  onAttached: (paper: Attached) => void;
}) {
  const file = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const attach = async (chosen: File) => {
    if (!kinds.includes(chosen.type))
      return setFaults([misread(kinds === PAPER_TYPES ? 'paper-kind' : 'picture-kind').fault]);
    setBusy(true);
    try {
      const ready = await readyToSend(chosen);
      if (!ready.ok) return setFaults([ready.fault]);
      const kept = await call(addPaper, {
        params: { paperId: v7() },
        query: { subject, name: chosen.name.slice(0, 120) || 'paper' },
        body: ready.value,
      });
      setFaults([]);
      onAttached({ paperId: kept.id, sha256: kept.sha256, name: kept.name });
    } catch (error) {
      setFaults(faultsOf(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <Box>
      <input
        ref={file}
        type="file"
        hidden
        accept={kinds.join(',')}
        aria-label={label}
        onChange={e => {
          const [chosen] = e.target.files ?? [];
          e.target.value = '';
          if (chosen) void attach(chosen);
        }}
      />
      <Button variant="outlined" disabled={busy} sx={{ minHeight: 44 }} onClick={() => file.current?.click()}>
        {attached ? say('paper.attached', { name: attached.name }) : label}
      </Button>
      <Faults faults={faults} />
    </Box>
  );
}
