import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { onCircle } from '../../tests/support/on-circle';

/** Packages that the core may use: computation and parsing, nothing that touches a screen, a disk or a clock. */
const allowed = ['zod', 'ml-matrix', 'papaparse', 'pure-rand'];

const ground = ['quantities', 'traces', 'instruments', 'physics', 'fitting'];

/**
 * The rooms of the core from the ground up, each with what it may import; where nothing is named, all that is above it
 * in this list. Type imports count.
 */
const rooms: readonly { readonly name: string; readonly mayImport?: readonly string[] }[] = [
  { name: 'quantities', mayImport: [] },
  { name: 'traces', mayImport: [] },
  { name: 'instruments', mayImport: [] },
  { name: 'physics', mayImport: [] },
  { name: 'fitting', mayImport: ['physics'] },
  { name: 'vocabulary', mayImport: ['quantities', 'instruments'] },
  { name: 'procedure', mayImport: [...ground, 'vocabulary'] },
  { name: 'contract' },
  { name: 'dials', mayImport: [...ground, 'vocabulary', 'procedure'] },
  { name: 'calculators', mayImport: ground },
  { name: 'day-plan', mayImport: [] },
  { name: 'toolboxes' },
  { name: 'pictures', mayImport: [...ground, 'vocabulary', 'procedure', 'contract'] },
  {
    name: 'families',
    mayImport: [...ground, 'vocabulary', 'procedure', 'contract', 'dials', 'toolboxes', 'calculators'],
  },
  { name: 'rig', mayImport: [...ground, 'vocabulary', 'procedure', 'contract'] },
  { name: 'judging', mayImport: [...ground, 'vocabulary', 'procedure', 'contract', 'dials'] },
  { name: 'diagnosis' },
  { name: 'wording' },
  { name: 'formats' },
];

const files = readdirSync(__dirname, { recursive: true, encoding: 'utf8' }).filter(
  (file) => file.endsWith('.ts') && !file.endsWith('.test.ts'),
);

function importsOf(file: string): readonly string[] {
  return [
    ...readFileSync(path.join(__dirname, file), 'utf8').matchAll(/(?:\bfrom |\bimport\(|^import )'([^']+)'/gm),
  ].map((match) => match[1]);
}

/** File of the core that a relative import of one of its files leads to. */
function target(file: string, from: string): string {
  const base = path.join(path.dirname(file), from);
  const found = [`${base}.ts`, path.join(base, 'index.ts')].find((each) => existsSync(path.join(__dirname, each)));
  if (found === undefined) throw new Error(`${file} imports ${from}, which leads out of the core or to nothing`);
  return found;
}

const arrows = files.flatMap((file) =>
  importsOf(file)
    .filter((from) => from.startsWith('.'))
    .map((from) => ({ from: file, to: target(file, from) })),
);

const roomOf = (file: string) => file.split(path.sep)[0];

/** What keeps an import from being one that points down; null where it does. */
function against({ from, to }: { readonly from: string; readonly to: string }): string | null {
  const [below, above] = [roomOf(to), roomOf(from)];
  if (below === above) {
    if (above !== 'toolboxes' && above !== 'families') return null;
    const [mine, others] = [from, to].map((file) => file.split(path.sep).slice(1, -1)[0]);
    // The registry itself lies beside the families that it lists.
    return mine === undefined || mine === others ? null : `${from} imports ${to}, another of ${above}`;
  }
  const at = rooms.findIndex((room) => room.name === above);
  if (at < 0) return `${from} is in no room of the list`;
  const may = rooms[at].mayImport ?? rooms.slice(0, at).map((room) => room.name);
  return may.includes(below) ? null : `${from} imports ${to}: ${above} may not take from ${below}`;
}

describe('the core is pure', () => {
  it('imports only its own files and computation packages', () => {
    const foreign = files.flatMap((file) =>
      importsOf(file)
        .filter(
          (from) => !from.startsWith('.') && !allowed.some((name) => from === name || from.startsWith(`${name}/`)),
        )
        .map((from) => `${file} imports ${from}`),
    );
    expect(foreign).toEqual([]);
    expect(files.length).toBeGreaterThan(40);
  });

  it('reads no clock and draws no unseeded number', () => {
    const impure = files.filter((file) =>
      /Date\.now|new Date\(|Math\.random|performance\./.test(readFileSync(path.join(__dirname, file), 'utf8')),
    );
    expect(impure).toEqual([]);
  });

  it('imports point down: from a room to those it may take from, from no toolbox or family to another', () => {
    expect(arrows.map(against).filter(Boolean)).toEqual([]);
    expect(arrows.length).toBeGreaterThan(500);
  });

  it('has no circle of files, and none of folders', () => {
    expect(onCircle(arrows)).toEqual([]);
    // The borders of packages (index files) gather what their folder holds: they are no room of their own.
    const folderOf = (file: string) => (path.basename(file) === 'index.ts' ? file : path.dirname(file));
    expect(onCircle(arrows.map(({ from, to }) => ({ from: folderOf(from), to: folderOf(to) })))).toEqual([]);
  });

  it('forms no figure that went round its evidence: only their own files make evidence and answers', () => {
    const makers = ['procedure/evidence.ts', 'procedure/question.ts'];
    const around = files.filter(
      (file) =>
        !makers.includes(file.split(path.sep).join('/')) &&
        /\bas (?:unknown as )?(?:Answered|Evidence)\b/.test(readFileSync(path.join(__dirname, file), 'utf8')),
    );
    expect(around).toEqual([]);
  });
});
