import type { EntityManager, EntitySchema } from 'typeorm';

/**
 * Inserts a row; one that is there by that key is left as it is. Anything else that is wrong with it is told, where
 * `INSERT IGNORE` would write something else in its place.
 */
export async function insertOnce<T extends object>(
  manager: EntityManager,
  entity: EntitySchema<T>,
  key: keyof T & string,
  row: T,
): Promise<void> {
  await manager
    .createQueryBuilder()
    .insert()
    .into(entity)
    .values(row as never)
    .orUpdate([key], [key])
    .execute();
}
