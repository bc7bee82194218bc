import type { Migration } from './migration.ts';

/** What owners confirmed from the open page before the first sale, and which kitchen is the made-up one. */
export const confirmations: Migration = {
  name: '0009_confirmations',
  up: `
create table confirmations (
  kitchen_id uuid not null references kitchens (kitchen_id), confirmation_id uuid not null,
  subject text not null, title text not null, edition text not null, page text not null, figures jsonb not null,
  demo boolean not null, person_id uuid not null, confirmed_at timestamptz not null,
  primary key (kitchen_id, confirmation_id)
);
create index confirmations_by_subject on confirmations (kitchen_id, subject, confirmed_at);
alter table confirmations enable row level security;
create policy apart on confirmations using (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid)
  with check (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid);
update kitchens k set settings = k.settings || '{"demo": true}'
  where exists (select 1 from memberships m join accounts a on a.id = m.account_id where m.kitchen_id = k.kitchen_id and a.demo);
`,
};
