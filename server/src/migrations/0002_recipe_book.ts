import type { Migration } from './migration.ts';

const ROOMS = ['tastings', 'ingredients', 'recipe_imports'];

/** Each kitchen's rows are apart: a role that does not own the tables sees the kitchen it entered, or nothing. */
const apart = ROOMS.map(
  table => `
  alter table ${table} enable row level security;
  create policy apart on ${table} using (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid)
    with check (kitchen_id = nullif(current_setting('app.kitchen_id', true), '')::uuid);`,
).join('\n');

/** The recipe book: families, tags, search, variants, tastings, own ingredients, imports. */
export const recipeBook: Migration = {
  name: '0002_recipe_book',
  up: `
alter table recipes
  add column product text not null default 'other', add column family text not null default '',
  add column tags text[] not null default '{}', add column variant_of uuid, add column search text not null default '';
update recipes set search = lower(name || ' ' || code);
create index recipes_by_family on recipes (kitchen_id, family, name, recipe_id);
create index recipes_by_tag on recipes using gin (tags);
create index recipes_by_variant on recipes (kitchen_id, variant_of) where variant_of is not null;
create index batches_by_recipe on batches (kitchen_id, recipe_id, made_on desc);

create table tastings (
  kitchen_id uuid not null references kitchens (kitchen_id), tasting_id uuid not null, recipe_id uuid not null,
  day date not null, rating integer not null check (rating between 1 and 5), notes text not null, person_id uuid not null,
  lot_code text not null, created_at timestamptz not null,
  primary key (kitchen_id, tasting_id), foreign key (kitchen_id, recipe_id) references recipes
);
create index tastings_by_recipe on tastings (kitchen_id, recipe_id, created_at desc);
create table ingredients (
  kitchen_id uuid not null references kitchens (kitchen_id), ingredient_id text not null, body jsonb not null,
  version integer not null default 1, primary key (kitchen_id, ingredient_id)
);
create table recipe_imports (
  kitchen_id uuid not null references kitchens (kitchen_id), import_id uuid not null, place integer not null,
  recipe_id uuid not null, code text not null, name text not null, product text not null, family text not null,
  tags text[] not null, search text not null, body jsonb not null, created_at timestamptz not null,
  primary key (kitchen_id, import_id, place)
);
${apart}
`,
};
