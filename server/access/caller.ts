import type { Request } from 'express';
import type { EndedWhy, Role } from '@emery/core/api';

/** Who asks, for what the routes decide and write down by it. */
export interface Caller {
  role: Role;
  /** On the machine that Emery runs on, which needs no sign-in. */
  machine: boolean;
  person: string | null;
  /** Who works at it; null where nobody is known, and what the device says of itself then stands. */
  name: string | null;
  device: string | null;
  /** The one job that was lent. */
  job: string | null;
  /** Of a session that ended: why. */
  ended: EndedWhy | null;
}

const NOBODY: Caller = {
  ...{ role: 'nobody', machine: false, person: null, name: null, device: null, job: null, ended: null },
};

/** At the machine itself. */
export const MACHINE: Caller = { ...NOBODY, role: 'owner', machine: true };

const CALLERS = new WeakMap<object, Caller>();
export const setCaller = (request: Request, caller: Partial<Caller>): void =>
  void CALLERS.set(request, { ...NOBODY, ...caller });
export const callerOf = (request: Request): Caller => CALLERS.get(request) ?? NOBODY;

/** The name that something is done under: of who is signed in, whatever was sent; else what was sent. */
export const doneBy = (request: Request, sent: string): string => callerOf(request).name ?? sent;

/** The caller for the list of what was done. */
export const nameOf = ({ name, machine }: Caller): string => name ?? (machine ? 'at the machine' : 'nobody');

/** The address somebody asks from; of IPv6 without the mark of a mapped one. */
export const addressOf = (request: Request): string => (request.ip ?? '').replace(/^::ffff:/, '').slice(0, 45);
