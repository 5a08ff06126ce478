/** The columns of what is changed and deleted by people: who changed it last, and whether it can be brought back. */
export const changing = {
  revision: { type: 'int' },
  saveId: { type: 'varchar', length: 36 },
  updatedAt: { type: 'datetime', precision: 3 },
  deletedAt: { type: 'datetime', precision: 3, nullable: true },
} as const;
