import type { Migration } from './migration.ts';

/**
 * When the last entry of a kitchen's record arrived: the next one never arrives before it. And by which rules a batch's
 * row was derived: what older rules made is derived again.
 */
export const receipts: Migration = {
  name: '0005_receipts',
  up: `
alter table heads add column last_at timestamptz;
update heads h set last_at = e.last_at
  from (select kitchen_id, max(received_at) as last_at from events group by kitchen_id) e where e.kitchen_id = h.kitchen_id;

alter table batches add column rules integer not null default 0;
create index batches_asking_more on batches (kitchen_id, made_on desc, batch_id desc) where summary -> 'asksMore' <> '[]'::jsonb;
`,
};
