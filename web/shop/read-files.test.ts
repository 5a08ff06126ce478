/** @jest-environment node */
import { strToU8, zipSync } from 'fflate';
import { readDriveFiles } from './read-files';

const file = (name: string, content: string | Uint8Array) => new File([content as BlobPart], name);

test('plain files are read as they are; of an archive only the drive files', async () => {
  const archive = zipSync({ 'a.emery.json': strToU8('{"a":1}'), 'deep/b.emery.json': strToU8('{"b":2}'), 'photo.txt': strToU8('no') });
  expect(await readDriveFiles([file('c.emery.json', '{"c":3}'), file('all.zip', archive)])).toEqual([
    { name: 'c.emery.json', text: '{"c":3}' },
    { name: 'a.emery.json', text: '{"a":1}' },
    { name: 'deep/b.emery.json', text: '{"b":2}' },
  ]);
});

test('what cannot be opened, holds nothing, or unpacks to too much is said in words', async () => {
  await expect(readDriveFiles([file('broken.zip', 'not an archive')])).rejects.toThrow('broken.zip cannot be opened as an archive.');
  await expect(readDriveFiles([file('empty.zip', zipSync({ 'x.txt': strToU8('x') }))])).rejects.toThrow('No .emery.json file is among these.');
  const bomb = zipSync({ 'big.emery.json': new Uint8Array(25_000_000) });
  expect(bomb.length).toBeLessThan(100_000);
  await expect(readDriveFiles([file('bomb.zip', bomb)])).rejects.toThrow('bomb.zip unpacks to more than 20 MB.');
});
