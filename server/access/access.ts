import type { DataSource } from 'typeorm';
import { Attempts } from './attempts';
import { Audit } from './audit';
import { Codes } from './codes';
import { UnderWay } from './guard';
import { newSecret, settingsOf } from './secret';
import type { Sharing } from '../share/sharing';

/** What stands behind who may reach a shop; one for each that is open. */
export interface Access {
  secret: string;
  audit: Audit;
  attempts: Attempts;
  codes: Codes;
  underWay: UnderWay;
  sharing: Sharing;
  /** Makes the first owner from another device; told at the terminal that Emery was started at. */
  ownerCode: string;
}

const OPEN = new WeakMap<DataSource, Access>();

/** Opens it once the database is up to date. */
export async function openAccess(data: DataSource, sharing: Sharing): Promise<Access> {
  const { secret } = await settingsOf(data);
  const access: Access = {
    secret,
    audit: new Audit(data),
    attempts: new Attempts(),
    codes: new Codes(),
    underWay: new UnderWay(),
    sharing,
    ownerCode: newSecret(),
  };
  OPEN.set(data, access);
  return access;
}

/** That of an open shop. */
export function accessOf(data: DataSource): Access {
  const access = OPEN.get(data);
  if (!access) throw new Error('this shop is not open');
  return access;
}
