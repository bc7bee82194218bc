import type { Migration } from './migration.ts';

/** How the labels of each recipe are made, and what a kitchen prints them on. */
export const labels: Migration = {
  name: '0014_labels',
  up: `
create table label_setups (
  kitchen_id uuid not null references kitchens (kitchen_id), recipe_id uuid not null,
  setup jsonb not null, version integer not null,
  primary key (kitchen_id, recipe_id)
);
create table label_settings (
  kitchen_id uuid not null references kitchens (kitchen_id),
  settings jsonb not null, version integer not null,
  primary key (kitchen_id)
);
alter table label_setups enable row level security;
create policy apart on label_setups using (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid)
  with check (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid);
alter table label_settings enable row level security;
create policy apart on label_settings using (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid)
  with check (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid);
`,
};
