import type { Migration } from './migration.ts';

/** People: sessions one can see and end, devices that are known, a right to sign, links without a maker, exact counts of guesses. */
export const houseStands: Migration = {
  name: '0004_house_stands',
  up: `
alter table sessions add column session_id uuid not null default gen_random_uuid() unique,
  add column browser text not null default '', add column address text not null default '', add column last_seen_at timestamptz;
update sessions set last_seen_at = created_at;
alter table sessions alter column last_seen_at set not null;

create table known_devices (
  account_id uuid not null references accounts (id), token_hash text not null, last_at timestamptz not null,
  primary key (account_id, token_hash)
);

alter table memberships add column may_sign boolean not null default false;
update memberships set may_sign = true where role = 'owner';
alter table invitations add column may_sign boolean not null default false, alter column made_by drop not null;
create index invitations_by_kitchen on invitations (kitchen_id) where used_by is null;

-- What was done once under a caller's id, and is known by nothing else.
create table done_calls (
  kitchen_id uuid not null references kitchens (kitchen_id), call_id uuid not null, kind text not null, digest text not null,
  reply jsonb not null, at timestamptz not null, primary key (kitchen_id, call_id)
);
alter table done_calls enable row level security;
create policy apart on done_calls using (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid)
  with check (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid);

drop table sign_in_attempts;
create table sign_in_counts (key varchar(255) primary key, points integer not null default 0, expire bigint);
`,
};
