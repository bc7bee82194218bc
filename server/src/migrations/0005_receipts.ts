import type { Migration } from './migration.ts';

/** When the last entry of a kitchen's record arrived: the next one never arrives before it. */
export const receipts: Migration = {
  name: '0005_receipts',
  up: `
alter table heads add column last_at timestamptz;
update heads h set last_at = e.last_at
  from (select kitchen_id, max(received_at) as last_at from events group by kitchen_id) e where e.kitchen_id = h.kitchen_id;
`,
};
