import type { Migration } from './migration.ts';

/** The room for papers: pictures and documents of pages, letters and permits, and which of them a confirmation rests on. */
export const papers: Migration = {
  name: '0010_papers',
  up: `
create table papers (
  kitchen_id uuid not null references kitchens (kitchen_id), paper_id uuid not null,
  subject text not null, name text not null, media_type text not null, content bytea not null, sha256 text not null,
  person_id uuid not null, added_at timestamptz not null,
  primary key (kitchen_id, paper_id)
);
create index papers_by_subject on papers (kitchen_id, subject, added_at);
alter table papers alter column content set storage external;
alter table papers enable row level security;
create policy apart on papers using (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid)
  with check (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid);
alter table confirmations add column papers jsonb not null default '[]';
`,
};
