import { Decimal } from '@cocotte/core/measure';
import type { CostSheet } from '@cocotte/core/stores';

/** Jars of a batch that can be sold. */
export const jarsOf = (sheet: CostSheet): number => sheet.bySize.reduce((n, b) => n + b.count, 0);

/** An exact amount of a batch as its share of one jar. */
export const perJar = (sheet: CostSheet, exact: string): Decimal => new Decimal(exact).div(jarsOf(sheet));
