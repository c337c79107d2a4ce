import { inFace } from './picture-svg';
import type { Report } from '@/core/formats/report';
import { curveSvg } from './curve-svg';
import {
  curveSentence,
  findingsSentence,
  findingsTitle,
  headRows,
  issuedLine,
  reportTitle,
  standInSentence,
  verdictWord,
  when,
  withdrawnLine,
} from './report-words';

function text(value: string): string {
  return value.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
}

const style = `
body{font:15px/1.45 system-ui,sans-serif;color:#12201F;background:#fff;margin:32px auto;max-width:820px;padding:0 24px}
h1{font-size:27px;margin:0}h2{font-size:17px;margin:26px 0 6px;border-bottom:2px solid #12201F;padding-bottom:3px}
h3{font-size:15px;margin:16px 0 4px}dl{display:grid;grid-template-columns:110px 1fr;gap:2px 12px;margin:14px 0}
dt{color:#56686A}dd{margin:0}table{border-collapse:collapse;width:100%;font-size:14px}
th,td{text-align:left;vertical-align:top;padding:3px 8px 3px 0;border-bottom:1px solid #C3CDCE}th{color:#56686A;font-weight:400}
td.figure{font-variant-numeric:tabular-nums}.tag{display:inline-block;border:2px solid #12201F;border-radius:3px;padding:2px 8px;font-weight:700}
.standin{border:2px solid #12201F;padding:6px 10px;margin:14px 0;font-weight:700}.quiet{color:#56686A;font-size:13px}
.sign{margin-top:40px;border-top:1px solid #12201F;width:320px;padding-top:4px}svg{max-width:100%;height:auto}
@media print{body{margin:0}}`;

function stepSection(report: Report, step: Report['steps'][number]): string {
  const rows = step.rows
    .map(
      (row) =>
        `<tr><td>${text(row.name)}</td><td class="figure">${text(row.reading)}</td><td class="figure">${text(row.limit)}${row.limitSource ? `<div class="quiet">${text(row.limitSource)}</div>` : ''}</td><td>${verdictWord(row.verdict)}</td></tr>`,
    )
    .join('');
  const who = step.who ? `${step.who}, ${when(report, step.when)}, ${step.source}` : 'not run';
  const notes = step.notes.map((note) => `<p class="quiet">${text(note)}</p>`).join('');
  const table = rows
    ? `<table><thead><tr><th>What</th><th>Reading ± U</th><th>Limit</th><th>Verdict</th></tr></thead><tbody>${rows}</tbody></table>`
    : '';
  return `<h3>${text(step.title)}: ${verdictWord(step.verdict)}</h3><p class="quiet">${text(who)}</p>${table}${notes}`;
}

function findingsSection({ findings }: Report): string {
  if (findings.length === 0) return '';
  const rows = findings.map(
    (each) =>
      `<tr><td class="figure">${text(each.probability)}</td><td>${text(each.title)}</td><td class="quiet">${each.reasons.map(text).join('<br>')}</td></tr>`,
  );
  return `<h2>${findingsTitle}</h2><p class="quiet">${findingsSentence}</p><table><tbody>${rows.join('')}</tbody></table>`;
}

function repairSection(report: Report): string {
  const { repairs, proof, changes } = report;
  if (repairs.length === 0) return '';
  const done = repairs.map(
    (each, at) =>
      `<p class="quiet">After round ${at + 1}: ${text(each.who)}, ${when(report, each.when)}</p><ul>${each.work.map((work) => `<li>${text(work)}</li>`).join('')}</ul>${each.note ? `<p>${text(each.note)}</p>` : ''}`,
  );
  const rows = changes.map(
    (each) =>
      `<tr><td>${text(each.step)}: ${text(each.name.toLowerCase())}</td><td class="figure">${text(each.before)}</td><td class="figure">${text(each.after)}</td><td class="figure">${text(each.change)}</td></tr>`,
  );
  const table = rows.length
    ? `<table><thead><tr><th>What changed</th><th>Before ± U</th><th>After ± U</th><th>Change ± U</th></tr></thead><tbody>${rows.join('')}</tbody></table>`
    : '';
  return `<h2>Repair</h2>${done.join('')}<p><strong>${text(proof)}</strong></p>${table}`;
}

/** The report as one self-contained HTML page. */
export function reportHtml(report: Report): string {
  const title = `${reportTitle(report)} ${report.job.serial}`;
  const curve = report.curve
    ? `<h2>${text(report.curve.title)}</h2><p class="quiet">${text(curveSentence(report.curve))} Blue: pull. Violet: way back.</p>${curveSvg(report.curve, { width: 760, height: 360 }, 'system-ui, sans-serif')}`
    : '';
  const picture = report.picture
    ? `<h2>${text(report.picture.title)}</h2><p class="quiet">${text(report.picture.text)}</p>${inFace(report.picture.svg, 'system-ui, sans-serif')}`
    : '';
  const list = (items: readonly string[]) => `<ul>${items.map((item) => `<li>${text(item)}</li>`).join('')}</ul>`;
  const instruments = report.instruments
    .map(
      (each) => `<tr><td>${text(each.name)}</td><td>${text(each.accuracy)}</td><td>${text(each.calibration)}</td></tr>`,
    )
    .join('');
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${text(title)}</title><style>${style}</style></head><body>
<p class="quiet">${text(report.shop)}</p><h1>${reportTitle(report)}</h1>
<p><span class="tag">${text(report.job.serial)}</span> ${verdictWord(report.verdict)}, ${text(issuedLine(report))}</p>
${withdrawnLine(report) ? `<p class="standin">${text(withdrawnLine(report) ?? '')}</p>` : ''}
${report.standIn ? `<p class="standin">${standInSentence}</p>` : ''}
<dl>${headRows(report)
    .map(([label, value]) => `<dt>${label}</dt><dd>${text(value)}</dd>`)
    .join('')}</dl>
${findingsSection(report)}${repairSection(report)}${curve}${picture}
<h2>Steps</h2>${report.steps.map((step) => stepSection(report, step)).join('')}
<h2>Instruments</h2><table><thead><tr><th>Instrument</th><th>Class</th><th>Calibration</th></tr></thead><tbody>${instruments}</tbody></table>
<h2>Cautions</h2>${list(report.cautions)}
${report.acknowledged.length > 0 ? `<h3>Acknowledged at the bench</h3>${list(report.acknowledged)}` : ''}
<p class="sign">Signature of a qualified person, date</p>
</body></html>`;
}
