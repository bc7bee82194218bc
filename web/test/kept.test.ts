import { beforeEach, describe, expect, it } from 'vitest';
import { emptyDraft } from '../src/recipes/editor/draft.ts';
import { forget, keep, readKept } from '../src/recipes/editor/kept.ts';
import { kitchenOf, standInStorage } from './browser.ts';

const draft = { ...emptyDraft(kitchenOf('en-US', true), 0), name: 'Half a recipe' };
const kept = { draft, version: 3, recipeId: 'r' };

describe('unsaved work', () => {
  let storage: Map<string, string>;
  beforeEach(() => {
    storage = standInStorage();
  });

  it('comes back as it was typed, for its kitchen and its recipe only', () => {
    keep('k', 'r', kept);
    expect(readKept('k', 'r')).toEqual(kept);
    expect(readKept('k', 'other')).toBeNull();
    expect(readKept('another kitchen', 'r')).toBeNull();
    expect(readKept('k', null)).toBeNull();
  });

  it('of a recipe that is not saved yet has a place of its own', () => {
    keep('k', null, { ...kept, version: 0 });
    expect(readKept('k', null)?.version).toBe(0);
  });

  it('is gone once it is saved or given up', () => {
    keep('k', 'r', kept);
    forget('k', 'r');
    expect(readKept('k', 'r')).toBeNull();
  });

  it('that cannot be read any more is none, and a full store breaks nothing', () => {
    storage.set('cocotte.draft.k.r', '{"draft":');
    expect(readKept('k', 'r')).toBeNull();
    Object.defineProperty(globalThis, 'localStorage', {
      configurable: true,
      value: {
        getItem: () => {
          throw new Error('closed');
        },
        setItem: () => {
          throw new Error('full');
        },
      },
    });
    expect(() => keep('k', 'r', kept)).not.toThrow();
    expect(readKept('k', 'r')).toBeNull();
  });
});
