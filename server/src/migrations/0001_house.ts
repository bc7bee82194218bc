import type { Migration } from './migration.ts';

const ROOMS = [
  'kitchens',
  'heads',
  'recipes',
  'recipe_versions',
  'items',
  'lots',
  'movements',
  'batches',
  'events',
];

/** Each kitchen's rows are apart: a role that does not own the tables sees the kitchen it entered, or nothing. */
const apart = ROOMS.map(
  table => `
  alter table ${table} enable row level security;
  create policy apart on ${table} using (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid)
    with check (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid);`,
).join('\n');

export const house: Migration = {
  name: '0001_house',
  up: `
create table accounts (
  id uuid primary key, email text not null unique, name text not null, password_hash text not null,
  demo boolean not null default false, created_at timestamptz not null
);
create table kitchens (
  kitchen_id uuid primary key, name text not null, settings jsonb not null, version integer not null default 1, created_at timestamptz not null
);
create table memberships (
  account_id uuid not null references accounts (id), kitchen_id uuid not null references kitchens (kitchen_id),
  role text not null check (role in ('owner', 'cook', 'viewer')), primary key (account_id, kitchen_id)
);
create index memberships_by_kitchen on memberships (kitchen_id);
create table sessions (
  token_hash text primary key, account_id uuid not null references accounts (id), kitchen_id uuid references kitchens (kitchen_id),
  created_at timestamptz not null, expires_at timestamptz not null
);
create index sessions_by_account on sessions (account_id);
create table invitations (
  token_hash text primary key, id uuid not null unique, kitchen_id uuid not null references kitchens (kitchen_id), role text not null check (role in ('owner', 'cook', 'viewer')),
  made_by uuid not null references accounts (id), expires_at timestamptz not null, used_by uuid references accounts (id)
);
create table sign_in_attempts (key text primary key, failures integer not null, last_at timestamptz not null);

create table heads (kitchen_id uuid primary key references kitchens (kitchen_id), seq bigint not null default 0, hash text not null);

create table recipes (
  kitchen_id uuid not null references kitchens (kitchen_id), recipe_id uuid not null, name text not null, code text not null,
  version integer not null, cooked integer not null default 0, last_cooked date, created_at timestamptz not null,
  primary key (kitchen_id, recipe_id), unique (kitchen_id, code)
);
create index recipes_by_name on recipes (kitchen_id, name, recipe_id);
create table recipe_versions (
  kitchen_id uuid not null, recipe_id uuid not null, number integer not null, body jsonb not null, frozen boolean not null default false, created_at timestamptz not null,
  primary key (kitchen_id, recipe_id, number), foreign key (kitchen_id, recipe_id) references recipes
);

create table items (
  kitchen_id uuid not null references kitchens (kitchen_id), item_id uuid not null, kind text not null check (kind in ('ingredient', 'jar', 'lid')), name text not null,
  body jsonb not null, primary key (kitchen_id, item_id)
);
create index items_by_name on items (kitchen_id, name, item_id);
create table lots (
  kitchen_id uuid not null, lot_id uuid not null, item_id uuid not null, label text not null, supplier text not null, received_on date not null, best_by date,
  unit_cost numeric not null check (unit_cost >= 0), strength_pct numeric, on_hand numeric not null default 0 check (on_hand >= 0),
  primary key (kitchen_id, lot_id), foreign key (kitchen_id, item_id) references items
);
create index lots_in_stock on lots (kitchen_id, received_on desc, lot_id desc) where on_hand > 0;
create index lots_by_day on lots (kitchen_id, received_on desc, lot_id desc);
create table movements (
  kitchen_id uuid not null, movement_id uuid not null, lot_id uuid not null, quantity numeric not null, reason text not null check (reason in ('received', 'drawn', 'put back')),
  event_id uuid, line integer, at timestamptz not null,
  primary key (kitchen_id, movement_id), foreign key (kitchen_id, lot_id) references lots, unique (kitchen_id, event_id, line)
);
create index movements_by_lot on movements (kitchen_id, lot_id);

create table batches (
  kitchen_id uuid not null, batch_id uuid not null, lot_code text not null, recipe_id uuid not null, recipe_version integer not null, name text not null, made_on date not null,
  stage text not null, open boolean not null, summary jsonb not null, last_seq bigint not null,
  primary key (kitchen_id, batch_id), unique (kitchen_id, lot_code), foreign key (kitchen_id, recipe_id, recipe_version) references recipe_versions
);
create index batches_by_day on batches (kitchen_id, made_on desc, batch_id desc);
create index batches_by_stage on batches (kitchen_id, stage, made_on desc, batch_id desc);
create index batches_open on batches (kitchen_id, made_on desc, batch_id desc) where open;

create table events (
  kitchen_id uuid not null, seq bigint not null, event_id uuid not null, batch_id uuid not null, type text not null,
  content text not null, client_hash text not null, prev_hash text not null, hash text not null, received_at timestamptz not null,
  primary key (kitchen_id, seq), unique (kitchen_id, event_id)
);
create index events_by_batch on events (kitchen_id, batch_id, seq);
${apart}
`,
};
