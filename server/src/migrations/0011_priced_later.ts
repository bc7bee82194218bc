import type { Migration } from './migration.ts';

/** What is bought may get its price later: what is left of it then leaves without one and comes in with it. */
export const pricedLater: Migration = {
  name: '0011_priced_later',
  up: `
alter table movements drop constraint movements_reason_check;
alter table movements add constraint movements_reason_check check (reason in ('received', 'drawn', 'put back', 'counted', 'lost',
  'used up', 'returned to supplier', 'returned', 'worked up', 'made', 'taken back', 'priced'));
`,
};
