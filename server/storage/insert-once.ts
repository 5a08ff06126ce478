import type { EntityManager, EntitySchema, QueryDeepPartialEntity } from 'typeorm';

/**
 * Inserts a row; one that is there by that key is left as it is. Anything else that is wrong with it is told, where
 * `INSERT IGNORE` would write something else in its place.
 */
export async function insertOnce<T extends object>(
  manager: EntityManager,
  entity: EntitySchema<T>,
  key: keyof T & string,
  row: QueryDeepPartialEntity<T>,
): Promise<void> {
  await manager.createQueryBuilder().insert().into(entity).values(row).orUpdate([key], [key]).execute();
}
