import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { onCircle } from '../tests/support/on-circle';

/** Folders of `src` from the ground up: each imports only from those above it in this list, and from itself. Type imports count. */
const order = [
  'core',
  'charts',
  'data',
  'server/http',
  'server/context',
  'server/paper',
  'server/recording',
  'server/threads',
  'server/shop',
  'server/judging',
  'server/views',
  'server/desk',
  'server/api',
  'server',
  'workers',
  'cli',
  'ui',
  'app',
];

const root = __dirname;
const files = readdirSync(root, { recursive: true, encoding: 'utf8' })
  .map((file) => file.split(path.sep).join('/'))
  .filter((file) => /\.tsx?$/.test(file) && !/\.test\.tsx?$/.test(file));

interface Arrow {
  readonly from: string;
  readonly to: string;
  readonly typeOnly: boolean;
  /** Fetched when it is asked for. */
  readonly later: boolean;
}

function target(file: string, specifier: string): string | null {
  const base = specifier.startsWith('@/')
    ? specifier.slice(2)
    : specifier.startsWith('.')
      ? path.posix.join(path.posix.dirname(file), specifier)
      : null;
  if (base === null) return null;
  const found = ['.ts', '.tsx', '/index.ts', '']
    .map((end) => `${base}${end}`)
    .find((each) => existsSync(path.join(root, each)));
  return found && /\.tsx?$/.test(found) ? found : null;
}

const arrows: readonly Arrow[] = files.flatMap((file) =>
  [
    ...readFileSync(path.join(root, file), 'utf8').matchAll(
      /^(?:import|export) (type )?(?:[^'";]*? from )?'([^']+)'|\bimport\('([^']+)'\)/gm,
    ),
  ].flatMap((found) => {
    const to = target(file, found[2] ?? found[3]);
    return to ? [{ from: file, to, typeOnly: found[1] !== undefined, later: found[3] !== undefined }] : [];
  }),
);

const folderOf = (file: string): string =>
  order.filter((folder) => file.startsWith(`${folder}/`)).sort((p, q) => q.length - p.length)[0] ?? 'app';

/** What screens may take of the server beside its types: nothing that touches data. */
const forScreens = ['server/recording/recorder-speeds.ts'];

describe('the shape of the sources', () => {
  it('imports point down the list of folders', () => {
    const up = arrows
      .filter(({ from, to }) => order.indexOf(folderOf(to)) > order.indexOf(folderOf(from)))
      .map(({ from, to }) => `${from} → ${to}`);
    expect(up).toEqual([]);
    expect(arrows.length).toBeGreaterThan(2000);
  });

  it('has no circle of files, and none of the server’s folders', () => {
    expect(onCircle(arrows)).toEqual([]);
    const folders = arrows.map(({ from, to }) => ({ from: folderOf(from), to: folderOf(to) }));
    expect(onCircle(folders)).toEqual([]);
  });

  it('screens take types of the server and of its data, and no more', () => {
    const taken = arrows.filter(
      ({ from, to, typeOnly }) =>
        /^(?:ui|workers)\//.test(from) && /^(?:server|data)\//.test(to) && !typeOnly && !forScreens.includes(to),
    );
    expect(taken.map(({ from, to }) => `${from} → ${to}`)).toEqual([]);
  });

  it('screens carry no family and no library of pictures: those come when a page is about them', () => {
    const reached = new Set(files.filter((file) => file.startsWith('ui/')));
    for (const file of reached)
      for (const { from, to, typeOnly, later } of arrows) if (from === file && !typeOnly && !later) reached.add(to);
    const carried = [...reached].filter((file) =>
      /^core\/families\/(?:[^/]+\/)?index\.ts$|^charts\/library\.ts$/.test(file),
    );
    expect(carried).toEqual([]);
    expect(reached.has('core/families/registry.ts')).toBe(true);
  });

  it('takes of the checker of forms what it uses: the name `z` would bring every language of it along', () => {
    const whole = files.filter((file) =>
      /import \{[^}]*\bz\b[^}]*\} from 'zod'/.test(readFileSync(path.join(root, file), 'utf8')),
    );
    expect(whole.filter((file) => !/import type \{/.test(readFileSync(path.join(root, file), 'utf8')))).toEqual([]);
  });

  it('pages and routes ask use cases and views, and neither data nor the disk', () => {
    const around = arrows.filter(({ from, to }) => from.startsWith('app/') && to.startsWith('data/'));
    expect(around.map(({ from, to }) => `${from} → ${to}`)).toEqual([]);
    const disk = files.filter(
      (file) =>
        /^(?:app|server\/api)\//.test(file) &&
        /from 'node:fs|from 'knex/.test(readFileSync(path.join(root, file), 'utf8')),
    );
    expect(disk).toEqual([]);
  });
});
