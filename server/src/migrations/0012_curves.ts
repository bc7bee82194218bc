import type { Migration } from './migration.ts';

/** What instruments showed all along a step, in chunks beside the record: a batch of a thousand entries stays small. */
export const curves: Migration = {
  name: '0012_curves',
  up: `
create table curves (
  kitchen_id uuid not null references kitchens (kitchen_id), curve_id uuid not null, batch_id uuid not null,
  step_id text not null, pot_id text, instrument_id text not null, name text not null, checked jsonb,
  began_at timestamptz not null, kept_at timestamptz,
  primary key (kitchen_id, curve_id)
);
create index curves_of_batch on curves (kitchen_id, batch_id, began_at);
create table curve_chunks (
  kitchen_id uuid not null, curve_id uuid not null, number int not null,
  until_ms bigint not null, readings int not null, content text not null, hash text not null,
  primary key (kitchen_id, curve_id, number),
  foreign key (kitchen_id, curve_id) references curves (kitchen_id, curve_id)
);
alter table curves enable row level security;
create policy apart on curves using (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid)
  with check (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid);
alter table curve_chunks enable row level security;
create policy apart on curve_chunks using (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid)
  with check (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid);
`,
};
