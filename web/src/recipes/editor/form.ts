import type { Recipe } from '@cocotte/core/recipes';
import type { useReadForm } from '../../kit/form.ts';
import type { Draft } from './draft.ts';

/** The form of the editor: what is typed is a draft, what is read of it a recipe. */
export type DraftForm = ReturnType<typeof useReadForm<Draft, Recipe>>;
