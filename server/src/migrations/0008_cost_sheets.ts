import type { Migration } from './migration.ts';

/** What a batch cost when it was released: stored then, and only ever read after. */
export const costSheets: Migration = {
  name: '0008_cost_sheets',
  up: `
create table cost_sheets (
  kitchen_id uuid not null references kitchens (kitchen_id), batch_id uuid not null,
  sheet jsonb not null, kept_at timestamptz not null,
  primary key (kitchen_id, batch_id)
);
alter table cost_sheets enable row level security;
create policy apart on cost_sheets using (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid)
  with check (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid);
`,
};
