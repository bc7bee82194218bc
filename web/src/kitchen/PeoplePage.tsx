import { invite, listPeople, removePerson } from '@cocotte/contract';
import { ROLES, type Role } from '@cocotte/core/kitchen';
import { type Fault, instantText } from '@cocotte/core/measure';
import {
  Box,
  Button,
  MenuItem,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
} from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 } from 'uuid';
import { call, faultsOf } from '../shell/call.ts';
import { Aloud, Faults, Sheet, ViewHead } from '../shell/parts.tsx';
import { useHere } from '../shell/session.tsx';

const WORDS: Record<Role, string> = {
  owner: 'Owner: everything, settings and people too',
  cook: 'Cook: recipes, stores, batches, release and labels',
  viewer: 'Viewer: reads everything, changes nothing',
};

/** People of the kitchen, and the one-time link that adds one. */
export function PeoplePage() {
  const { kitchen, person } = useHere();
  const client = useQueryClient();
  const { data } = useQuery({ queryKey: ['people'], queryFn: () => call(listPeople) });
  const [role, setRole] = useState<Role>('cook');
  const [link, setLink] = useState<{ url: string; until: string } | null>(null);
  const [faults, setFaults] = useState<Fault[]>([]);
  const attempt = async (work: () => Promise<void>) => {
    setFaults([]);
    await work().catch((error: unknown) => setFaults(faultsOf(error)));
  };
  const make = () =>
    attempt(async () => {
      const made = await call(invite, { body: { id: v7(), role } });
      setLink({
        url: `${window.location.origin}/join/${made.token}`,
        until: instantText(Date.parse(made.expiresAt), kitchen),
      });
    });
  const remove = (personId: string) =>
    attempt(async () => {
      await call(removePerson, { params: { personId } });
      await client.invalidateQueries({ queryKey: ['people'] });
    });
  return (
    <>
      <ViewHead title="People" detail={kitchen.name} />
      <Faults faults={faults} />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1.5fr) minmax(0, 1fr)' },
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Sheet sx={{ overflowX: 'auto' }}>
          <Table>
            <TableHead>
              <TableRow>
                <TableCell>Name</TableCell>
                <TableCell>Email</TableCell>
                <TableCell>Role</TableCell>
                <TableCell>
                  <Aloud>Action</Aloud>
                </TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {data?.people.map(p => (
                <TableRow key={p.personId}>
                  <TableCell>{p.name}</TableCell>
                  <TableCell sx={{ wordBreak: 'break-word' }}>{p.email}</TableCell>
                  <TableCell>{p.role}</TableCell>
                  <TableCell align="right">
                    {p.personId !== person.id && (
                      <Button
                        size="small"
                        variant="outlined"
                        onClick={() => void remove(p.personId)}
                        aria-label={`Take out ${p.name}`}
                      >
                        Take out
                      </Button>
                    )}
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </Sheet>
        <Sheet title="Add somebody">
          <TextField
            select
            label="Role"
            value={role}
            onChange={e => setRole(e.target.value as Role)}
            sx={{ mt: 1, mb: 2 }}
          >
            {ROLES.map(r => (
              <MenuItem key={r} value={r}>
                {WORDS[r]}
              </MenuItem>
            ))}
          </TextField>
          <Button variant="contained" onClick={() => void make()}>
            Make a link
          </Button>
          {link && (
            <Box sx={{ mt: 2 }}>
              <TextField
                label="The link, shown this once"
                value={link.url}
                multiline
                slotProps={{ htmlInput: { readOnly: true } }}
                onFocus={e => e.target.select()}
              />
              <Box sx={{ mt: 1, color: 'text.secondary' }}>
                Send it to the person yourself. It opens once, until {link.until}.
              </Box>
            </Box>
          )}
        </Sheet>
      </Box>
    </>
  );
}
