import * as contract from '@cocotte/contract';
import { THREAD_PATIENCE_MS } from '../heavy/pool.ts';
import { type Mounted, porch, room } from '../house/mount.ts';
import { page } from './lot-page.ts';
import * as service from './service.ts';
import * as setups from './setups.ts';
import { touched } from './touched.ts';

/** Mounts the endpoints of labels. */
export const labelRoutes: Mounted[] = [
  room(contract.readLabelSetup, setups.readSetup),
  room(contract.changeLabelSetup, setups.changeSetup, { moves: ['settings'] }),
  room(contract.readLabelSettings, setups.readSettings),
  room(contract.changeLabelSettings, setups.changeSettings, { moves: ['settings'] }),
  room(contract.listTouchedLots, touched, { patience_ms: THREAD_PATIENCE_MS }),
  room(contract.labelCheckPage, setups.checkPage, { patience_ms: THREAD_PATIENCE_MS }),
  room(contract.printLabels, service.print, { writesRecord: true, patience_ms: THREAD_PATIENCE_MS }),
  room(contract.printOnRoll, service.roll, { patience_ms: THREAD_PATIENCE_MS }),
  porch(contract.lotPage, page),
  room(contract.labelSheet, service.sheet, { patience_ms: THREAD_PATIENCE_MS }),
];
