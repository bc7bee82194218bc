import type { Migration } from './migration.ts';

/** The kitchen's instruments, what they were held against, and what was checked of each batch. */
export const bench: Migration = {
  name: '0013_bench',
  up: `
create table kept_instruments (
  kitchen_id uuid not null references kitchens (kitchen_id), instrument_id text not null,
  kind text not null, name text not null, retired_at timestamptz,
  primary key (kitchen_id, instrument_id)
);
create table instrument_checks (
  kitchen_id uuid not null, check_id uuid not null, instrument_id text not null,
  person_id uuid not null, body jsonb not null, checked_at timestamptz not null,
  primary key (kitchen_id, check_id),
  foreign key (kitchen_id, instrument_id) references kept_instruments (kitchen_id, instrument_id)
);
alter table batches add column checked jsonb;
create index checks_of_instrument on instrument_checks (kitchen_id, instrument_id, checked_at);
alter table kept_instruments enable row level security;
create policy apart on kept_instruments using (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid)
  with check (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid);
alter table instrument_checks enable row level security;
create policy apart on instrument_checks using (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid)
  with check (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid);
`,
};
