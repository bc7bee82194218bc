import { openPaper } from '@cocotte/contract';
import { Link } from '@mui/material';
import { addressOf } from '../shell/call.ts';
import { say } from '../words/views.ts';

/** A paper that goes with an entry, opened beside. */
export function PaperLink({ paperId }: { paperId: string }) {
  return (
    <Link href={addressOf(openPaper, { paperId })} target="_blank" rel="noreferrer">
      {say('paper.open')}
    </Link>
  );
}
