import type { Migration } from './migration.ts';

/**
 * The counter: who signed in on a device may go on entering facts there (a grant), and is known there by a PIN. And a lot
 * may stand below nothing: what was used has happened, whatever the books had of it.
 */
export const counter: Migration = {
  name: '0007_counter',
  up: `
alter table sessions add column device_hash text;
alter table known_devices add column pin_hash text, add column pin_wrong integer not null default 0;

create table grants (
  account_id uuid not null, kitchen_id uuid not null, device_hash text not null,
  given_at timestamptz not null, expires_at timestamptz not null,
  -- Whoever signed out on the device stands no longer at it; what they left to deliver still arrives.
  left_at timestamptz,
  primary key (account_id, kitchen_id, device_hash),
  foreign key (account_id, kitchen_id) references memberships on delete cascade,
  foreign key (account_id, device_hash) references known_devices (account_id, token_hash) on delete cascade
);
-- Who ever used a device. It outlives the grant: nobody makes a device theirs alone by taking their own grant back.
create table device_people (
  device_hash text not null, kitchen_id uuid not null references kitchens (kitchen_id),
  account_id uuid not null references accounts (id), last_at timestamptz not null,
  primary key (device_hash, kitchen_id, account_id)
);
create index grants_by_device on grants (device_hash, kitchen_id);
create index grants_by_kitchen on grants (kitchen_id, account_id);

alter table lots drop constraint lots_on_hand_check;
create index lots_short on lots (kitchen_id, lot_id) where on_hand < 0;
`,
};
