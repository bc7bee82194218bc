import { UNITS } from '../../measure/index.ts';
import type { Burner } from '../costs.ts';
import type { Canner, Pot } from '../kitchen.ts';

const QUART_ML = UNITS.quart.factor.valueOf();
const INCH_MM = 25.4;

/** Something most kitchens have, with figures that fit most of them: typical of the trade, from memory, to be corrected. */
export interface UsualThing {
  id: string;
  name: string;
  thing:
    | { kind: 'pot'; pot: Omit<Pot, 'id'> }
    | { kind: 'canner'; canner: Omit<Canner, 'id'> }
    | { kind: 'burner'; burner: Omit<Burner, 'id'> };
}

const pot = (id: string, quarts: number, wide_in: number, boilOff_gPerMin: number): UsualThing => ({
  id,
  name: `Pot, ${quarts} quarts`,
  thing: {
    kind: 'pot',
    pot: {
      name: `${quarts}-quart pot`,
      capacity_mL: Math.round(quarts * QUART_ML),
      diameter_mm: Math.round(wide_in * INCH_MM),
      boilOff_gPerMin,
    },
  },
});

/** Pots, canners and burners as most kitchens have them. */
export const USUAL_THINGS: readonly UsualThing[] = [
  pot('pot-8', 8, 10, 35),
  pot('pot-12', 12, 11, 40),
  pot('pot-16', 16, 12, 50),
  {
    id: 'water-21',
    name: 'Boiling-water canner, 7 quarts at a time',
    thing: {
      kind: 'canner',
      canner: {
        name: 'Boiling-water canner',
        kind: 'boiling water',
        holds: { 'quarter-pint': 12, 'half-pint': 9, pint: 9, 'pint-and-a-half': 7, quart: 7 },
      },
    },
  },
  {
    id: 'steam-7',
    name: 'Atmospheric steam canner, 7 quarts at a time',
    thing: {
      kind: 'canner',
      canner: {
        name: 'Steam canner',
        kind: 'steam',
        holds: { 'quarter-pint': 10, 'half-pint': 8, pint: 8, quart: 7 },
      },
    },
  },
  {
    id: 'electric',
    name: 'Electric ring, 2,400 W',
    thing: {
      kind: 'burner',
      burner: { name: 'Electric ring', kind: 'electric', power_W: 2400 } as Omit<Burner, 'id'>,
    },
  },
  {
    id: 'gas',
    name: 'Outdoor gas burner',
    thing: {
      kind: 'burner',
      burner: { name: 'Outdoor gas burner', kind: 'gas', use_gPerHour: 1300, itemId: null } as Omit<
        Burner,
        'id'
      >,
    },
  },
];
