import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { phMeter, refractometer, scale, Stove, thermometer } from './instruments.ts';
import { pngOf } from './picture.ts';
import { labelPrinter } from './printer.ts';
import { serve } from './serve.ts';

/** Where water boils in the made-up kitchen at 2,350 ft, in °C; another figure as the first argument. */
const boils_C = Number(process.argv[2] ?? 97.7);

/** Where pictures of labels are laid, under the folder it was started in. */
const PRINTED = join('.cocotte', 'printed');
let pictures = 0;

const stove = new Stove(Number.isFinite(boils_C) ? boils_C : 100);
stove.fire(1);
const probe = thermometer(stove);
const served = await Promise.all([
  // The pot lives by the clock of its probe.
  serve(probe, {
    tick: seconds => {
      stove.tick(seconds);
      probe.tick(seconds);
    },
  }),
  serve(scale()),
  serve(refractometer(stove)),
  serve(phMeter()),
  // What it prints is shown where it was started; what it prints dot by dot lies in a folder as a picture.
  serve(
    labelPrinter(500, ({ lines, picture, copies }) => {
      let what = lines.join(' / ');
      if (picture) {
        mkdirSync(PRINTED, { recursive: true });
        what = join(PRINTED, `label-${String(++pictures).padStart(3, '0')}.png`);
        writeFileSync(what, pngOf(picture));
      }
      process.stdout.write(`Label printer, ${copies} of: ${what}\n`);
    }),
  ),
]);
const ports = served.map(s => s.port);
// Whoever started it is told where they are; by hand they are printed.
if (process.send) process.send({ ports });
else process.stdout.write(`Instruments on 127.0.0.1: ${ports.join(', ')}\n`);
const stop = async () => {
  await Promise.all(served.map(s => s.close()));
  process.exit(0);
};
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());
process.on('disconnect', () => void stop());
