import { copyFileSync, existsSync, mkdtempSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { backUp, restore } from './backup';
import { openDatabase } from './database';
import { FolderTaken, takeFolder } from './one-server';
import { markEntries, Unusable } from './unusable';

const folder = () => mkdtempSync(path.join(tmpdir(), 'shop-'));
const jobRow = (number: number) => ({
  id: `j${number}`,
  number,
  serial: `TK-${number}`,
  vehicle: '',
  complaint: '',
  place: 'waiting',
  booked_at: '',
  booked_by: '',
  sheet: '{}',
});
const numbersIn = async (at: string): Promise<number[]> => {
  const database = await openDatabase(at);
  const numbers = (await database('jobs').orderBy('number').pluck('number')) as number[];
  await database.destroy();
  return numbers;
};

describe('a copy of the shop’s book', () => {
  it('is whole while a server writes, and comes back as it was; what was there is moved aside', async () => {
    const at = folder();
    const giveBack = await takeFolder(at);
    const live = await openDatabase(at);
    for (let i = 1; i <= 50; i++) await live('jobs').insert(jobRow(i));
    const copying = backUp(at, path.join(at, 'copies', 'monday.sqlite'));
    for (let i = 51; i <= 80; i++) await live('jobs').insert(jobRow(i));
    const copy = await copying;
    expect(copy.jobs).toBeGreaterThanOrEqual(50);
    await markEntries(live, at);
    // Not beside a server that has the book open.
    await expect(restore(at, copy.file, 'x')).rejects.toThrow(FolderTaken);
    expect((await live('jobs').count('* as n').first()) as { n: number }).toEqual({ n: 80 });
    await live.destroy();
    await giveBack();

    const back = await restore(at, copy.file, '2026-11-26');
    expect([back.jobs, path.basename(back.before ?? '')]).toEqual([copy.jobs, 'before-restore-2026-11-26.sqlite']);
    expect(await numbersIn(at)).toEqual(Array.from({ length: copy.jobs }, (_, i) => i + 1));
    // What was moved aside is a copy like any other.
    const once = await restore(at, back.before!, '2026-11-27');
    expect(once.jobs).toBe(80);
    expect(await numbersIn(at)).toHaveLength(80);
  });

  it('of a server that was killed has what stood in its journal only', async () => {
    const [at, killed, other] = [folder(), folder(), folder()];
    const live = await openDatabase(at);
    await live.raw('pragma wal_autocheckpoint = 0');
    await live.raw('pragma wal_checkpoint(truncate)');
    await live('jobs').insert(jobRow(7));
    // As the files lie there after a kill: the book, and beside it what it does not hold yet.
    for (const ending of ['', '-wal'])
      copyFileSync(path.join(at, `hard-pedal.sqlite${ending}`), path.join(killed, `before.sqlite${ending}`));
    await live.destroy();
    expect((await restore(other, path.join(killed, 'before.sqlite'), 'x')).jobs).toBe(1);
    expect(await numbersIn(other)).toEqual([7]);
  });

  it('goes into an empty folder, another machine’s', async () => {
    const [at, other] = [folder(), folder()];
    const live = await openDatabase(at);
    await live('jobs').insert(jobRow(7));
    await live.destroy();
    const copy = await backUp(at, path.join(folder(), 'book.sqlite'));
    expect(await restore(other, copy.file, 'x')).toMatchObject({ before: null, jobs: 1 });
    expect(await numbersIn(other)).toEqual([7]);
  });

  it('writes over nothing, and what is no copy of a book changes nothing', async () => {
    const at = folder();
    const live = await openDatabase(at);
    await live('jobs').insert(jobRow(7));
    await live.destroy();
    const book = path.join(at, 'hard-pedal.sqlite');
    const copy = path.join(at, 'copy.sqlite');
    await backUp(at, copy);
    await expect(backUp(at, copy)).rejects.toThrow(/writes over nothing/);
    await expect(backUp(folder(), path.join(at, 'none.sqlite'))).rejects.toThrow(Unusable);

    const was = readFileSync(book);
    const whole = readFileSync(copy);
    const spoilt: readonly [string, Buffer | string, RegExp][] = [
      ['letter', 'a letter to the bank, and more of it', /no database of a shop/],
      ['empty', '', /is empty/],
      ['cut', whole.subarray(0, 20_000), /cut off/],
      [
        'mixed',
        Buffer.concat([whole.subarray(0, 8192), Buffer.alloc(whole.length - 8192, 7)]),
        /damaged|no database|cannot be read/,
      ],
    ];
    for (const [name, bytes, words] of spoilt) {
      const file = path.join(at, `${name}.sqlite`);
      writeFileSync(file, bytes);
      await expect(restore(at, file, 'x')).rejects.toThrow(words);
    }
    await expect(restore(at, path.join(at, 'nowhere.sqlite'), 'x')).rejects.toThrow(/no file/);
    expect(readFileSync(book).equals(was)).toBe(true);
    expect(readdirSync(at).filter((file) => /coming|part|before-restore/.test(file))).toEqual([]);
    expect(existsSync(copy)).toBe(true);
  });
});
