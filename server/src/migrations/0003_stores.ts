import type { Migration } from './migration.ts';

const ROOMS = ['item_months', 'receipts', 'receipt_mappings', 'receipt_imports', 'plans'];

/** Each kitchen's rows are apart: a role that does not own the tables sees the kitchen it entered, or nothing. */
const apart = ROOMS.map(
  table => `
  alter table ${table} enable row level security;
  create policy apart on ${table} using (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid)
    with check (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid);`,
).join('\n');

/** Stores: all kinds of items, lots that say where they are from, a ledger with values, receipts, planned batches. */
export const stores: Migration = {
  name: '0003_stores',
  up: `
alter table batches add column work jsonb not null default '[]';
alter table items drop constraint items_kind_check;
alter table items add constraint items_kind_check
  check (kind in ('ingredient', 'jar', 'lid', 'band', 'label', 'packaging', 'fuel', 'tool'));
alter table items add column version integer not null default 1, add column minimum numeric;

create table receipts (
  kitchen_id uuid not null references kitchens (kitchen_id), receipt_id uuid not null, supplier text not null, day date not null,
  number text not null, total numeric not null, fingerprint text not null, body jsonb not null, taken_back text not null default '',
  person_id uuid not null, created_at timestamptz not null, primary key (kitchen_id, receipt_id)
);
create index receipts_by_day on receipts (kitchen_id, day desc, receipt_id desc);
create index receipts_by_fingerprint on receipts (kitchen_id, fingerprint);

alter table lots add column facts jsonb, add column opened_on date, add column receipt_id uuid;
alter table lots add constraint lots_receipt foreign key (kitchen_id, receipt_id) references receipts;
create index lots_by_item on lots (kitchen_id, item_id, received_on, lot_id);
create index lots_on_shelf on lots (kitchen_id, item_id) where on_hand > 0;
create index lots_by_receipt on lots (kitchen_id, receipt_id) where receipt_id is not null;

alter table movements drop constraint movements_reason_check;
alter table movements add constraint movements_reason_check check (reason in ('received', 'drawn', 'put back', 'counted', 'lost',
  'used up', 'returned to supplier', 'returned', 'worked up', 'made', 'taken back'));
alter table movements add column item_id uuid, add column unit_cost numeric, add column note text not null default '',
  add column person_id uuid, add column batch_id uuid, add column to_lot uuid;
update movements m set item_id = l.item_id, unit_cost = l.unit_cost from lots l
  where l.kitchen_id = m.kitchen_id and l.lot_id = m.lot_id;
update movements m set batch_id = e.batch_id from events e
  where e.kitchen_id = m.kitchen_id and e.event_id = m.event_id;
alter table movements alter column item_id set not null, alter column unit_cost set not null;
create index movements_by_item on movements (kitchen_id, item_id, at) include (quantity, unit_cost);
create index movements_into on movements (kitchen_id, to_lot) where to_lot is not null;

create table item_months (
  kitchen_id uuid not null, item_id uuid not null, month date not null, quantity numeric not null, value numeric not null,
  primary key (kitchen_id, item_id, month), foreign key (kitchen_id, item_id) references items
);
insert into item_months
  select kitchen_id, item_id, date_trunc('month', at at time zone 'UTC')::date, sum(quantity), sum(quantity * unit_cost)
  from movements group by 1, 2, 3;

create table receipt_mappings (
  kitchen_id uuid not null references kitchens (kitchen_id), mapping_id uuid not null, name text not null, body jsonb not null,
  primary key (kitchen_id, mapping_id)
);
-- What is laid aside of an import is sent again after a crash: it needs no log, and no time to be packed.
create unlogged table receipt_imports (
  kitchen_id uuid not null references kitchens (kitchen_id), import_id uuid not null, place integer not null,
  receipt_id uuid not null, fingerprint text not null, body jsonb not null, created_at timestamptz not null,
  primary key (kitchen_id, import_id, place)
);
alter table receipt_imports alter column body set storage external;
create table plans (
  kitchen_id uuid not null references kitchens (kitchen_id), plan_id uuid not null, day date not null, recipe_id uuid not null,
  factor text not null, jars jsonb not null, primary key (kitchen_id, plan_id), foreign key (kitchen_id, recipe_id) references recipes
);
create index plans_by_day on plans (kitchen_id, day);
${apart}
`,
};
