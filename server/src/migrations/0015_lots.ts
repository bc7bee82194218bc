import type { Migration } from './migration.ts';

/**
 * The codes that jars of a batch bear, as they are looked for: letters and digits alone, and no two batches have one in
 * common. Where a kitchen's lots have a page that anybody can read. Labels name their codes one by one.
 */
export const lots: Migration = {
  name: '0015_lots',
  up: `
alter table batches add column lots jsonb not null default '[]', add column codes text[] not null default '{}';
create unique index batches_bare_code on batches (kitchen_id, (regexp_replace(upper(lot_code), '[^A-Z0-9]', '', 'g')));
create index batches_codes on batches using gin (codes);
create table lot_pages (
  page text primary key,
  kitchen_id uuid not null unique references kitchens (kitchen_id)
);
update label_setups set setup = (setup - 'code')
  || jsonb_build_object('scan', case when setup -> 'code' = 'false'::jsonb then 'none' else 'QR' end, 'bars', false, 'numbers', '[]'::jsonb,
    'shake', false, 'diluteParts', null);
update label_settings set settings = settings || '{
  "lots": {"parts": ["product", "day", "sequence"], "day": "day of the year", "separator": "-", "leftOut": "IO", "load": false},
  "pagesAt": ""
}'::jsonb;
`,
};
