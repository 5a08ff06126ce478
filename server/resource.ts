import type { RequestHandler, Router } from 'express';
import type { DataSource, EntitySchema, MigrationInterface } from 'typeorm';

/** What the API serves at one address: its tables, how they came to be, and its routes. */
export interface Resource {
  /** Below `/api`; empty for one with addresses of several kinds. */
  path: string;
  routes: (data: DataSource) => Router;
  entities?: readonly EntitySchema[];
  /** Run in the order of the times in their names, whatever the order of the list. */
  migrations?: readonly (new () => MigrationInterface)[];
  /** Reads its requests; what reads a drive where it does not say, and nothing for null. */
  body?: RequestHandler | null;
  /** Readers for addresses of its own that take more, by the address below `/api`. */
  bodies?: Readonly<Record<string, RequestHandler>>;
}
