import { createHash, randomBytes } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { Setting, type SettingRow } from './entity';
import { insertOnce } from '../storage/insert-once';

/** What is kept of a secret that a device holds: found again by it, and not made good by who reads it. */
export const sealed = (secret: string): string => createHash('sha256').update(secret).digest('hex');

/** A secret nobody guesses: 128 bits, as text that goes into an address. */
export const newSecret = (): string => randomBytes(16).toString('base64url');

/** The settings of this shop; made where there are none yet. */
export async function settingsOf(data: DataSource): Promise<SettingRow> {
  const settings = data.getRepository(Setting);
  const there = await settings.findOneBy({ id: 1 });
  if (there) return there;
  await insertOnce(data.manager, Setting, 'id', { id: 1, secret: randomBytes(32).toString('hex'), sharing: false });
  return settings.findOneByOrFail({ id: 1 });
}
