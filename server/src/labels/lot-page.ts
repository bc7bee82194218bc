import type { lotPage, ParamsOf } from '@cocotte/contract';
import { bareCode, type LabelContent, lotsOf } from '@cocotte/core/batches';
import { assess } from '@cocotte/core/checks';
import { labelFields } from '@cocotte/core/labels';
import { dayText } from '@cocotte/core/measure';
import { selectEvents, selectBatchOfCode } from '../batches/queries.ts';
import type { PorchCall } from '../house/mount.ts';
import { kitchenOfPage } from '../kitchen/outside.ts';
import { selectSettings } from './queries.ts';

/** What a page shows. */
interface Shown {
  label: LabelContent;
  calledBack: boolean;
}

/**
 * What stands on the last label that was printed for a lot, for anybody. A page that is off, a lot that is none and one without
 * a label look alike.
 */
export async function page(call: PorchCall<ParamsOf<typeof lotPage>, unknown, unknown>): Promise<Uint8Array> {
  const { database, params } = call;
  const kitchenId = await database.outside(trx => kitchenOfPage(trx, params.page.toUpperCase()));
  const shown = kitchenId
    ? await database.inKitchen(kitchenId, async trx => {
        const open = (await selectSettings(trx, kitchenId))?.settings.pagesAt;
        if (!open) return null;
        const code = bareCode(params.lotCode);
        const batchId = await selectBatchOfCode(trx, kitchenId, code);
        if (batchId === null) return null;
        const { state } = assess(await selectEvents(trx, kitchenId, batchId));
        const label = state.labels.findLast(l => bareCode(l.label.lotCode) === code)?.label;
        const lot = lotsOf(state).find(l => bareCode(l.lotCode) === code);
        return label ? { label, calledBack: lot?.jars.some(j => j.withdrawn) ?? false } : null;
      })
    : null;
  return new TextEncoder().encode(
    shown ? lotHtml(shown) : plainHtml(NO_PAGE.title, `<h1>${NO_PAGE.title}</h1><p>${NO_PAGE.says}</p>`),
  );
}

const NO_PAGE = {
  title: 'There is no page for this lot',
  says: 'Its maker shows none, or the address was misread. What stands on the jar counts.',
};

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

/** The words of a label, field by field, as they stand on it. */
function lotHtml({ label, calledBack }: Shown): string {
  const fields = labelFields(label, day => dayText(day, { locale: label.locale }));
  const said = [...fields].map(([field, spans]) => {
    const words = spans
      .map(s => (s.face === 'bold' ? `<strong>${escaped(s.text)}</strong>` : escaped(s.text)))
      .join('');
    return field === 'identity' ? `<h1>${words}</h1>` : `<p>${words}</p>`;
  });
  const back = calledBack
    ? '<p class="back" role="alert"><strong>Jars of this lot were called back by their maker.</strong> Do not open or taste them: bring them back, or ask the maker.</p>'
    : '';
  return plainHtml(
    label.statementOfIdentity,
    `${back}<article>${said.join('')}</article><footer>As printed on the label of this lot.</footer>`,
    label.locale,
  );
}

/** A page without scripts. */
const plainHtml = (title: string, body: string, locale = 'en'): string => `<!doctype html>
<html lang="${escaped(locale)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="robots" content="noindex">
<title>${escaped(title)}</title>
<style>
:root{color-scheme:light dark;--ground:#FAF3E6;--sheet:#FFFFFF;--ink:#2A211D;--accent:#4B1E3F;--rule:#DCCFB8;--ox:#8C2B1E}
@media (prefers-color-scheme:dark){:root{--ground:#1F1916;--sheet:#2A2320;--ink:#F3E9DC;--accent:#E2B8D4;--rule:#4A3F38;--ox:#F0A596}}
body{margin:0;background:var(--ground);color:var(--ink);font:1.0625rem/1.55 system-ui,sans-serif}
main{max-width:34rem;margin:0 auto;padding:1.5rem 1rem 3rem}
article{background:var(--sheet);border:1px solid var(--rule);border-radius:6px;padding:1.25rem 1.5rem}
h1{font:600 1.7rem/1.2 Georgia,serif;color:var(--accent);margin:0 0 .75rem}
p{margin:.6rem 0}
.back{border:2px solid var(--ox);color:var(--ox);border-radius:6px;padding:.75rem 1rem;margin:0 0 1rem}
footer{margin-top:1rem;font-size:.9rem;opacity:.8}
</style>
</head>
<body><main>${body}</main></body>
</html>
`;
