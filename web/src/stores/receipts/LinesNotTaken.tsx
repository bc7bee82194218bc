import type { CsvFault } from '@cocotte/core/stores';
import { Button } from '@mui/material';
import { List } from '../../kit/List.tsx';
import { giveOut } from '../../kit/give-out.ts';
import { Sheet, Soft } from '../../kit/parts.tsx';

/** Lines that are shown; the kept report has all. */
const SHOWN = 200;

/** The lines of a file that are not taken, by line and field, to be kept as a file of their own. */
export function LinesNotTaken({ faults, leftOut }: { faults: CsvFault[]; leftOut: number }) {
  const text = () =>
    [
      'line,field,what,next',
      ...faults.map(f =>
        [f.line, f.field, f.what, f.next].map(v => `"${String(v).replaceAll('"', '""')}"`).join(','),
      ),
    ].join('\r\n');
  const keep = () => giveOut(new Blob([text()], { type: 'text/csv' }), 'lines-not-taken.csv');
  return (
    <Sheet
      title={linesWords(new Set(faults.map(f => f.line)).size)}
      aside={
        <Button size="small" variant="outlined" onClick={keep}>
          Keep the report
        </Button>
      }
    >
      {leftOut > 0 && (
        <Soft>{leftOut} sound lines stay out with them: a receipt is taken whole or not at all.</Soft>
      )}
      <List
        label="Lines not taken"
        minWidth={520}
        rows={faults.slice(0, SHOWN)}
        keyOf={f => `${f.line} ${f.field} ${f.code}`}
        columns={[
          { head: 'Line', cell: f => f.line, order: f => f.line },
          { head: 'Field', cell: f => f.field, order: f => f.field },
          { head: 'What is wrong', cell: f => f.what, order: f => f.what },
          { head: 'What next', cell: f => f.next },
        ]}
      />
      {faults.length > SHOWN && <Soft>And {faults.length - SHOWN} more, in the report.</Soft>}
    </Sheet>
  );
}

const linesWords = (n: number) => (n === 1 ? 'One line is not taken' : `${n} lines are not taken`);
