import * as contract from '@cocotte/contract';
import { type Mounted, room } from '../house/mount.ts';
import * as service from './service.ts';

export const recipeRoutes: Mounted[] = [
  room(contract.listRecipes, service.list),
  room(contract.readRecipe, service.read),
  room(contract.addRecipe, service.add),
  room(contract.changeRecipe, service.change),
];
