import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { FolderTaken, takeFolder } from './one-server';

describe('one server on one data folder', () => {
  it('a second one is refused by the folder’s name, one beside it is not', async () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'one-server-'));
    const giveBack = await takeFolder(folder);
    await expect(takeFolder(folder)).rejects.toThrow(FolderTaken);
    await expect(takeFolder(folder)).rejects.toThrow(folder);
    const beside = await takeFolder(mkdtempSync(path.join(tmpdir(), 'one-server-')));
    await giveBack();
    // Given back it is to be had again.
    await (
      await takeFolder(folder)
    )();
    await beside();
  });
});
