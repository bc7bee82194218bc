import * as contract from '@cocotte/contract';
import { THREAD_PATIENCE_MS } from '../heavy/pool.ts';
import { type Mounted, room } from '../house/mount.ts';
import * as confirmations from './confirmations.ts';
import * as imports from './imports.ts';
import * as ingredients from './ingredients.ts';
import * as letters from './letters.ts';
import * as service from './service.ts';
import * as tastings from './tastings.ts';

const MOVES = { moves: ['recipes'] } as const;

/** Mounts the endpoints of recipes. */
export const recipeRoutes: Mounted[] = [
  room(contract.listRecipes, service.list),
  room(contract.listShelves, service.shelves),
  room(contract.readRecipe, service.read),
  room(contract.addRecipe, service.add, MOVES),
  room(contract.changeRecipe, service.change, MOVES),
  room(contract.listVersions, service.versions),
  room(contract.readVersion, service.version),
  room(contract.recipeHistory, service.history),
  room(contract.listTastings, tastings.list),
  room(contract.addTasting, tastings.add, MOVES),
  room(contract.listConfirmations, confirmations.list),
  room(contract.listLettersDue, letters.due),
  room(contract.confirmPage, confirmations.confirm, MOVES),
  room(contract.exportRecipes, service.exportPage),
  room(contract.importPart, imports.part, { patience_ms: THREAD_PATIENCE_MS }),
  room(contract.finishImport, imports.finish, { ...MOVES, patience_ms: imports.FINISH_PATIENCE_MS }),
  room(contract.listIngredients, ingredients.list),
  room(contract.putIngredient, ingredients.put, MOVES),
  room(contract.removeIngredient, ingredients.remove, MOVES),
];
