import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

/** Packages that the core may use: computation and parsing, nothing that touches a screen, a disk or a clock. */
const allowed = ['zod', 'ml-matrix', 'papaparse', 'pure-rand'];

const files = readdirSync(__dirname, { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'))
  .map((file) => path.join(__dirname, file));

describe('the core is pure', () => {
  it('imports only its own files and computation packages', () => {
    const foreign = files.flatMap((file) =>
      [...readFileSync(file, 'utf8').matchAll(/from '([^']+)'/g)]
        .map((match) => match[1])
        .filter(
          (from) => !from.startsWith('.') && !allowed.some((name) => from === name || from.startsWith(`${name}/`)),
        )
        .map((from) => `${path.basename(file)} imports ${from}`),
    );
    expect(foreign).toEqual([]);
    expect(files.length).toBeGreaterThan(40);
  });

  it('reads no clock and draws no unseeded number', () => {
    const impure = files.filter((file) =>
      /Date\.now|new Date\(|Math\.random|performance\./.test(readFileSync(file, 'utf8')),
    );
    expect(impure.map((file) => path.basename(file))).toEqual([]);
  });
});
