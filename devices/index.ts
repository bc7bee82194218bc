export { type Happened, type Scene, DryKitchen, SCENES } from './dry-kitchen.ts';
export { type Instrument, noise } from './instruments.ts';
export { type PotOnFire, brixOf } from './pot.ts';
