import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Cell, FigureSignature, SignatureTable } from '@/core/diagnosis/signature-table';
import type { PlanId } from '@/core/procedure/step-context';

const folder = path.join(process.cwd(), 'assets', 'signatures');

/** Where the table of a kind's plan lies. */
export function signatureFile(kind: { readonly family: string; readonly value: string }, plan: PlanId): string {
  const name = [kind.family, ...(kind.value === '' ? [] : [kind.value]), plan].join('-');
  return path.join(folder, `${name}.json`);
}

/** A cell as it is written: shares measured, above and below, where it lies, and how much that differs. */
type WrittenCell = readonly [number, number, number, number, number];

const writtenCell = ({ measured, above, below, at, spread }: Cell): WrittenCell => [measured, above, below, at, spread];

const readCell = ([measured, above, below, at, spread]: WrittenCell): Cell => ({ measured, above, below, at, spread });

/** Writes a table, one figure and one severity of a fault a line, so that a change can be read in a diff; returns the file. */
export function writeSignatures({ figures, faults, ...head }: SignatureTable): string {
  const file = signatureFile({ family: head.family, value: head.kind }, head.plan);
  const figureLines = figures.map(({ sound, ...each }) => JSON.stringify({ ...each, sound: writtenCell(sound) }));
  const faultLines = Object.entries(faults).map(([id, severities]) => {
    const lines = severities.map((cells) => JSON.stringify(cells.map((cell) => cell && writtenCell(cell))));
    return `${JSON.stringify(id)}: [\n${lines.join(',\n')}\n]`;
  });
  const text = [
    `{\n"of": ${JSON.stringify(head)},`,
    `"figures": [\n${figureLines.join(',\n')}\n],`,
    `"faults": {\n${faultLines.join(',\n')}\n}\n}\n`,
  ].join('\n');
  mkdirSync(folder, { recursive: true });
  writeFileSync(file, text);
  return file;
}

const known = new Map<string, SignatureTable | null>();

/** The table of a kind's plan; null where none was made. Read once. */
export function readSignatures(
  kind: { readonly family: string; readonly value: string },
  plan: PlanId,
): SignatureTable | null {
  const file = signatureFile(kind, plan);
  if (!known.has(file)) known.set(file, read(file));
  return known.get(file) ?? null;
}

function read(file: string): SignatureTable | null {
  let text: string;
  try {
    text = readFileSync(file, 'utf8');
  } catch {
    return null;
  }
  const { of, figures, faults } = JSON.parse(text) as {
    readonly of: Omit<SignatureTable, 'figures' | 'faults'>;
    readonly figures: readonly (Omit<FigureSignature, 'sound'> & { readonly sound: WrittenCell })[];
    readonly faults: Readonly<Record<string, readonly (readonly (WrittenCell | null)[])[]>>;
  };
  return {
    ...of,
    figures: figures.map((each) => ({ ...each, sound: readCell(each.sound) })),
    faults: Object.fromEntries(
      Object.entries(faults).map(([id, severities]) => [
        id,
        severities.map((cells) => cells.map((cell) => cell && readCell(cell))),
      ]),
    ),
  };
}
