import type { Request } from 'express';
import type { DataSource } from 'typeorm';
import { accessOf } from './access';
import { addressOf, callerOf, nameOf } from './caller';
import { hasOwner } from './people';
import type { AuditKind, Me } from '@emery/core/api';

/** Writes into the list of what was done what a request did. */
export const tell = (
  data: DataSource,
  request: Request,
  kind: AuditKind,
  what: string,
  who = nameOf(callerOf(request)),
) => accessOf(data).audit.tell({ kind, who, address: addressOf(request), what });

/** Whom the server takes a device for. */
export async function meOf(data: DataSource, request: Request): Promise<Me> {
  const { role, name, machine, job } = callerOf(request);
  return { role, name, machine, job, owned: await hasOwner(data.manager) };
}
