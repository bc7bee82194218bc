import {
  type Member,
  changePerson,
  invite,
  listInvitations,
  listPeople,
  removePerson,
  withdrawInvitation,
} from '@cocotte/contract';
import { ROLES, type Role } from '@cocotte/core/kitchen';
import { type Fault, instantText } from '@cocotte/core/measure';
import { Box, Button, Checkbox, FormControlLabel } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 } from 'uuid';
import { call, faultsOf } from '../shell/call.ts';
import { FreeText, Switcher } from '../kit/controls.tsx';
import { Columns, Stack } from '../kit/layout.tsx';
import { Faults, Nothing, Sheet, Soft, ViewHead } from '../kit/parts.tsx';
import { useHere } from '../shell/session.tsx';

const WORDS: Record<Role, string> = {
  owner: 'Owner: everything, settings and people too',
  cook: 'Cook: recipes, stores, batches and labels',
  viewer: 'Viewer: reads everything, changes nothing',
};

/** People of the kitchen, what each may do, and the one-time links that add one. */
export function PeoplePage() {
  const { kitchen } = useHere();
  const client = useQueryClient();
  const [faults, setFaults] = useState<Fault[]>([]);
  const attempt = async (work: () => Promise<unknown>) => {
    setFaults([]);
    try {
      await work();
    } catch (error) {
      setFaults(faultsOf(error));
    }
    for (const queryKey of [['people'], ['invitations'], ['session']])
      void client.invalidateQueries({ queryKey });
  };
  return (
    <>
      <ViewHead title="People" detail={kitchen.name} />
      <Faults faults={faults} />
      <Columns of="1.8fr 1fr" from="lg">
        <Members attempt={attempt} />
        <Links attempt={attempt} />
      </Columns>
    </>
  );
}

type Attempt = (work: () => Promise<unknown>) => Promise<void>;

function Members({ attempt }: { attempt: Attempt }) {
  const { person } = useHere();
  const client = useQueryClient();
  const { data } = useQuery({ queryKey: ['people'], queryFn: () => call(listPeople) });
  const change = (p: Member, over: Partial<Pick<Member, 'role' | 'maySign'>>) => {
    const role = over.role ?? p.role;
    const maySign = role !== 'viewer' && (over.maySign ?? p.maySign);
    return attempt(async () => {
      const params = { personId: p.personId };
      client.setQueryData(['people'], await call(changePerson, { params, body: { role, maySign } }));
    });
  };
  return (
    <Sheet title="Who works here">
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {data?.people.map(p => (
          <Box
            component="li"
            key={p.personId}
            sx={{
              display: 'grid',
              gridTemplateColumns: {
                xs: 'minmax(0, 1fr) auto',
                md: 'minmax(0, 1.3fr) 150px minmax(0, 1.2fr) 104px',
              },
              columnGap: 2,
              rowGap: 1.25,
              alignItems: 'center',
              py: 1.5,
              borderTop: 1,
              borderColor: 'rule.main',
              '&:first-of-type': { borderTop: 0, pt: 0.5 },
            }}
          >
            <Box sx={{ gridColumn: { xs: '1 / -1', md: 'auto' } }}>
              {p.name}
              <Box sx={{ color: 'text.secondary', fontSize: '0.9rem', overflowWrap: 'anywhere' }}>
                {p.email}
              </Box>
            </Box>
            <Switcher
              size="small"
              label={`Role of ${p.name}`}
              value={p.role}
              of={ROLES}
              onPick={role => void change(p, { role })}
            />
            <Box sx={{ gridColumn: { xs: '1 / -1', md: 'auto' }, gridRow: { xs: 3, md: 'auto' } }}>
              {p.role === 'owner' && 'May release and sign, as an owner.'}
              {p.role === 'viewer' && <Soft>Reads, and changes nothing.</Soft>}
              {p.role === 'cook' && (
                <FormControlLabel
                  control={
                    <Checkbox
                      checked={p.maySign}
                      onChange={e => void change(p, { maySign: e.target.checked })}
                      slotProps={{ input: { 'aria-label': `${p.name} may release and sign` } }}
                    />
                  }
                  label="May release and sign"
                />
              )}
            </Box>
            <Box sx={{ textAlign: 'right' }}>
              {p.personId !== person.id && (
                <Button
                  size="small"
                  variant="outlined"
                  onClick={() => void attempt(() => call(removePerson, { params: { personId: p.personId } }))}
                  aria-label={`Take out ${p.name}`}
                >
                  Take out
                </Button>
              )}
            </Box>
          </Box>
        ))}
      </Box>
      <Box sx={{ color: 'text.secondary', mt: 1 }}>
        Whoever may release and sign answers for what leaves the kitchen.
      </Box>
    </Sheet>
  );
}

function Links({ attempt }: { attempt: Attempt }) {
  const { kitchen } = useHere();
  const { data } = useQuery({ queryKey: ['invitations'], queryFn: () => call(listInvitations) });
  const [role, setRole] = useState<Role>('cook');
  const [maySign, setMaySign] = useState(false);
  const [link, setLink] = useState<{ id: string; url: string; until: string } | null>(null);
  const until = (instant: string) => instantText(Date.parse(instant), kitchen);
  const make = () =>
    attempt(async () => {
      const id = v7();
      const made = await call(invite, {
        body: { id, role, maySign: role === 'owner' || (role === 'cook' && maySign) },
      });
      setLink({ id, url: `${window.location.origin}/join/${made.token}`, until: until(made.expiresAt) });
    });
  const withdraw = (id: string) =>
    attempt(async () => {
      await call(withdrawInvitation, { params: { invitationId: id } });
      if (link?.id === id) setLink(null);
    });
  return (
    <Stack>
      <Sheet title="Add somebody">
        <Switcher
          label="Role"
          value={role}
          of={ROLES.map(r => [r, WORDS[r]] as const)}
          onPick={setRole}
          sx={{ mt: 1, mb: 1 }}
        />
        {role === 'cook' && (
          <FormControlLabel
            sx={{ display: 'flex', mb: 1 }}
            control={<Checkbox checked={maySign} onChange={e => setMaySign(e.target.checked)} />}
            label="May release jars and sign"
          />
        )}
        <Button variant="contained" onClick={() => void make()}>
          Make a link
        </Button>
        {link && (
          <Box sx={{ mt: 2 }}>
            <FreeText
              label="The link, shown this once"
              value={link.url}
              onText={() => undefined}
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
      <Sheet title="Links that are open">
        {data?.invitations.length === 0 && <Nothing>No link is open.</Nothing>}
        <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
          {data?.invitations.map(i => (
            <Box
              component="li"
              key={i.id}
              sx={{ display: 'flex', gap: 1.5, alignItems: 'center', py: 1, flexWrap: 'wrap' }}
            >
              <Box sx={{ flex: 1, minWidth: 180 }}>
                For {i.role === 'owner' ? 'an owner' : `a ${i.role}`}
                {i.role === 'cook' && i.maySign && ' who may release and sign'}
                <Box sx={{ color: 'text.secondary', fontSize: '0.9rem' }}>
                  made by {i.madeBy}, opens until {until(i.expiresAt)}
                </Box>
              </Box>
              <Button
                size="small"
                variant="outlined"
                onClick={() => void withdraw(i.id)}
                aria-label={`Withdraw the link for a ${i.role}, made by ${i.madeBy}`}
              >
                Withdraw
              </Button>
            </Box>
          ))}
        </Box>
      </Sheet>
    </Stack>
  );
}
