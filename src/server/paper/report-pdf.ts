import { inFace } from './picture-svg';
import path from 'node:path';
import pdfmake from 'pdfmake';
import type { Content, TableCell } from 'pdfmake/interfaces';
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

const fontFolder = path.join(process.cwd(), 'assets', 'fonts');

function setUp(): void {
  pdfmake.setFonts({
    Shipped: {
      normal: path.join(fontFolder, 'DejaVuSans.ttf'),
      bold: path.join(fontFolder, 'DejaVuSans-Bold.ttf'),
    },
  });
  // A report needs nothing from outside: only the shipped fonts may be read.
  pdfmake.setUrlAccessPolicy(() => false);
  pdfmake.setLocalAccessPolicy((file: string) => file.startsWith(fontFolder));
}

const quiet = { color: '#56686A', fontSize: 8 };
const thinRules = {
  hLineWidth: () => 0.5,
  vLineWidth: () => 0,
  hLineColor: () => '#C3CDCE',
  paddingLeft: () => 0,
  paddingRight: () => 8,
  paddingTop: () => 2,
  paddingBottom: () => 2,
};

function table(widths: (string | number)[], head: readonly string[], rows: TableCell[][]): Content {
  return {
    table: {
      headerRows: 1,
      widths,
      body: [head.map((cell) => ({ text: cell, ...quiet })), ...rows],
      dontBreakRows: true,
    },
    layout: thinRules,
    margin: [0, 2, 0, 4],
  };
}

function heading(title: string): Content {
  return { text: title, bold: true, fontSize: 12, margin: [0, 12, 0, 4] };
}

function stepContent(report: Report, step: Report['steps'][number]): Content {
  const who = step.who ? `${step.who}, ${when(report, step.when)}, ${step.source}` : 'not run';
  const rows = step.rows.map((row): TableCell[] => [
    row.name,
    row.reading,
    { stack: [row.limit, ...(row.limitSource ? [{ text: row.limitSource, ...quiet }] : [])] },
    verdictWord(row.verdict),
  ]);
  const stack: Content[] = [
    { text: `${step.title}: ${verdictWord(step.verdict)}`, bold: true, margin: [0, 6, 0, 0] },
    { text: who, ...quiet },
  ];
  if (rows.length > 0) stack.push(table([125, 140, '*', 60], ['What', 'Reading ± U', 'Limit', 'Verdict'], rows));
  for (const note of step.notes) stack.push({ text: note, ...quiet });
  return { stack, unbreakable: step.rows.length < 8 };
}

function findingsContent({ findings }: Report): Content[] {
  if (findings.length === 0) return [];
  const rows = findings.map((each): TableCell[] => [
    each.probability,
    each.title,
    { stack: each.reasons.map((reason) => ({ text: reason, ...quiet })) },
  ]);
  return [
    heading(findingsTitle),
    { text: findingsSentence, ...quiet },
    table([60, 150, '*'], ['How likely', 'What', 'What says most'], rows),
  ];
}

function repairContent(report: Report): Content[] {
  const { repairs, proof, changes } = report;
  if (repairs.length === 0) return [];
  const done = repairs.flatMap((each, at): Content[] => [
    { text: `After round ${at + 1}: ${each.who}, ${when(report, each.when)}`, ...quiet },
    { ul: [...each.work] },
    ...(each.note === '' ? [] : [{ text: each.note }]),
  ]);
  const rows = changes.map((each): TableCell[] => [
    `${each.step}: ${each.name.toLowerCase()}`,
    each.before,
    each.after,
    each.change,
  ]);
  return [
    heading('Repair'),
    ...done,
    { text: proof, bold: true, margin: [0, 4, 0, 4] },
    ...(rows.length === 0
      ? []
      : [table(['*', 95, 95, 95], ['What changed', 'Before ± U', 'After ± U', 'Change ± U'], rows)]),
  ];
}

/** The report as a PDF. */
export async function reportPdf(report: Report): Promise<Buffer> {
  setUp();
  const content: Content[] = [
    { text: report.shop, ...quiet },
    { text: reportTitle(report), fontSize: 20, bold: true },
    {
      text: `${report.job.serial}   ${verdictWord(report.verdict)}, ${issuedLine(report)}`,
      bold: true,
      margin: [0, 2, 0, 8],
    },
  ];
  const framed = (words: string): Content => ({
    table: { widths: ['*'], body: [[{ text: words, bold: true, margin: [4, 3, 4, 3] }]] },
    margin: [0, 0, 0, 8],
  });
  const withdrawn = withdrawnLine(report);
  if (withdrawn) content.push(framed(withdrawn));
  if (report.standIn) content.push(framed(standInSentence));
  content.push(
    ...headRows(report).map(([label, value]): Content => ({
      columns: [{ text: label, width: 80, color: '#56686A' }, { text: value }],
      margin: [0, 1, 0, 1],
    })),
  );
  content.push(...findingsContent(report), ...repairContent(report));
  if (report.curve)
    content.push(
      heading(report.curve.title),
      {
        text: `${curveSentence(report.curve)} Blue: pull. Violet: way back.`,
        ...quiet,
      },
      { svg: curveSvg(report.curve, { width: 640, height: 330 }, 'Shipped'), width: 515, margin: [0, 4, 0, 0] },
    );
  if (report.picture)
    content.push(
      heading(report.picture.title),
      { text: report.picture.text, ...quiet },
      { svg: inFace(report.picture.svg, 'Shipped'), width: 515, margin: [0, 4, 0, 0] },
    );
  content.push(heading('Steps'), ...report.steps.map((step) => stepContent(report, step)));
  content.push(
    heading('Instruments'),
    table(
      ['*', 110, 190],
      ['Instrument', 'Class', 'Calibration'],
      report.instruments.map((each) => [each.name, each.accuracy, each.calibration]),
    ),
    heading('Cautions'),
    { ul: [...report.cautions] },
  );
  if (report.acknowledged.length > 0)
    content.push(
      { text: 'Acknowledged at the bench', bold: true, margin: [0, 8, 0, 2] },
      { ul: [...report.acknowledged] },
    );
  content.push({
    stack: [
      { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 240, y2: 0, lineWidth: 0.8 }] },
      { text: 'Signature of a qualified person, date', ...quiet },
    ],
    margin: [0, 48, 0, 0],
    unbreakable: true,
  });
  return pdfmake
    .createPdf({
      info: { title: `${reportTitle(report)} ${report.job.serial}` },
      pageSize: 'A4',
      pageMargins: [40, 40, 40, 46],
      defaultStyle: { font: 'Shipped', fontSize: 9.5, color: '#12201F' },
      footer: (page, pages) => ({
        text: `${report.job.serial}, job ${report.job.number}, page ${page} of ${pages}`,
        ...quiet,
        margin: [40, 12, 40, 0],
      }),
      content,
    })
    .getBuffer();
}
