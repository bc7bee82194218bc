import type { CsvFault } from '@cocotte/core/stores';
import { Button, Table, TableBody, TableCell, TableHead, TableRow } from '@mui/material';
import { Sheet, Soft } from '../../shell/parts.tsx';

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
  const keep = () => {
    const url = URL.createObjectURL(new Blob([text()], { type: 'text/csv' }));
    const a = document.createElement('a');
    a.href = url;
    a.download = 'lines-not-taken.csv';
    a.click();
    URL.revokeObjectURL(url);
  };
  return (
    <Sheet
      title={linesWords(new Set(faults.map(f => f.line)).size)}
      aside={
        <Button size="small" variant="outlined" onClick={keep}>
          Keep the report
        </Button>
      }
      sx={{ overflowX: 'auto' }}
    >
      {leftOut > 0 && (
        <Soft>{leftOut} sound lines stay out with them: a receipt is taken whole or not at all.</Soft>
      )}
      <Table size="small" aria-label="Lines not taken" sx={{ minWidth: 520 }}>
        <TableHead>
          <TableRow>
            <TableCell>Line</TableCell>
            <TableCell>Field</TableCell>
            <TableCell>What is wrong</TableCell>
            <TableCell>What next</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {faults.slice(0, SHOWN).map(f => (
            <TableRow key={`${f.line} ${f.field} ${f.code}`}>
              <TableCell>{f.line}</TableCell>
              <TableCell>{f.field}</TableCell>
              <TableCell>{f.what}</TableCell>
              <TableCell>{f.next}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {faults.length > SHOWN && <Soft>And {faults.length - SHOWN} more, in the report.</Soft>}
    </Sheet>
  );
}

const linesWords = (n: number) => (n === 1 ? 'One line is not taken' : `${n} lines are not taken`);
