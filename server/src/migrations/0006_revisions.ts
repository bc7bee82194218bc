import type { Migration } from './migration.ts';

/**
 * How often a kitchen's recipes, stock and settings were changed: by these counts, beside the end of its record, a device
 * learns that what it holds is old.
 */
export const revisions: Migration = {
  name: '0006_revisions',
  up: `
create table revisions (
  kitchen_id uuid primary key references kitchens (kitchen_id),
  recipes bigint not null default 0, stock bigint not null default 0, settings bigint not null default 0
);
alter table revisions enable row level security;
create policy apart on revisions using (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid)
  with check (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid);
`,
};
