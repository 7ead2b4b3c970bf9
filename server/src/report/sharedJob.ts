import { clockAnswers, correctedMs, rigTitle, sayJobFact, unitTitle } from '@keen-bleed/core';
import { planOf } from '@keen-bleed/core/drawing';
import type { JobOnPaper } from './jobOnPaper';
import { NOT_AN_INSPECTION, NOT_DRAWN, saySeal, sayMoment } from './page';
import { escaped, planSvg } from './planSvg';

/** What a shared job is made of. */
export interface SharedJob extends JobOnPaper {
  shopName: string;
  timeZone: string;
  /** Photos by id, as data of the page. */
  photos: ReadonlyMap<string, string>;
}

const STYLE = `
body{font:16px/1.45 system-ui,sans-serif;color:#171c20;background:#f5f2ea;margin:0 auto;max-width:760px;padding:24px}
h1{font-size:26px;margin:0}h2{font-size:18px;margin:28px 0 8px;border-top:3px solid #171c20;padding-top:8px}
.quiet{color:#5b656c}ol{list-style:none;padding:0}li{margin:0 0 14px}b{display:block}
table{border-collapse:collapse;width:100%}th,td{text-align:left;padding:4px 8px 4px 0;border-bottom:1px solid #cfc9bc}
td.n{font-variant-numeric:tabular-nums}img{max-width:220px;max-height:220px;margin:6px 6px 0 0}
svg{width:100%;height:auto;background:#fff}code{overflow-wrap:anywhere;font-size:12px}`;

/** A job as one file that opens anywhere without an account: drawing, photos, figures and its story. */
export function sharedJob(job: SharedJob): string {
  const { header, state, writers, timeZone, facts, photos, shopName } = job;
  const { units, found } = header.made;
  const [unit, ...towed] = units;
  const title = unit ? rigTitle({ unit, towed }) : 'Job';
  const gauge = unit?.gauge.unit ?? 'psi';
  const answers = clockAnswers(facts);
  const at = state.proven?.at ?? state.fitted.at(-1)?.at ?? null;
  const index = Math.max(
    0,
    units.findIndex(({ id }) => id === (at?.unitId ?? header.subject.unitId)),
  );
  const drawn = unit
    ? planSvg(
        planOf({ unit, towed }, 'left', { show: 'unit', unit: index }),
        at ? `${index} ${at.partId}` : null,
      )
    : '';
  const story = state.told.map((fact) => {
    const { title: head, text } = sayJobFact(header, fact, gauge);
    const ids = 'photos' in fact ? (fact.photos ?? []) : [];
    const pictures = ids.map((id) => {
      const data = photos.get(id);
      return data
        ? `<img src="${data}" alt="Photo of ${escaped(head)}">`
        : `<div class="quiet">${NOT_DRAWN}</div>`;
    });
    const when = sayMoment(correctedMs(fact, answers.get(fact.lane)), timeZone);
    return `<li><b>${escaped(head)}</b>${escaped(text)}<div class="quiet">${escaped(writers[fact.lane] ?? '')}, ${escaped(when)}</div>${pictures.join('')}</li>`;
  });
  const readings = state.owed.flatMap(({ done }) => done?.readings ?? []);
  const say = (value: number | null) => (value === null ? '' : String(Math.round(value * 10) / 10));
  const table =
    readings.length === 0
      ? ''
      : `<h2>Before and after</h2><table><tr><th>Reading</th><th>Before</th><th>After</th><th>Expected</th><th></th></tr>${readings
          .map(
            (each) =>
              `<tr><td>${escaped(each.title)}</td><td class="n">${say(each.before)}</td><td class="n">${say(each.after)}</td><td class="n">${say(each.expected)}</td><td>${escaped(each.unit)}</td></tr>`,
          )
          .join('')}</table>`;
  const standing = state.released
    ? `Released ${sayMoment(state.released.atServerMs, timeZone)}`
    : 'Not released';
  const digest = state.released
    ? `<p class="quiet">Digest of the record: <code>${state.released.digest}</code></p>`
    : '';
  const whole = units.map(unitTitle).join(' + ');
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${escaped(title)}: ${escaped(found)}</title><style>${STYLE}</style></head><body><p class="quiet">${escaped(shopName)}</p><h1>${escaped(title)}</h1><p>${escaped(found)}<br><strong>${escaped(standing)}</strong></p><h2>Where</h2>${drawn}<p class="quiet">${escaped(whole)}. Red is supply air, blue service, yellow park.</p><h2>What was done</h2><ol>${story.join('')}</ol>${table}${digest}<p class="quiet">${escaped(NOT_AN_INSPECTION)} ${escaped(saySeal(job.chain))}</p></body></html>`;
}
