/** What is wrong with the changes of a patch, each behind the name of the field. */
export const PATCH_WORDS = {
  object: 'must be an object, one change',
  at: (max: number) => `must say where: "at" is a list of 1 to ${max} texts`,
  oneThing: 'must do one thing: "now", "add", "drop" or "order"',
  drop: 'must have true for "drop"',
  order: 'must have lists of texts for "order" and "from"',
  texts: (max: number) => `must have texts of ${max} characters at most for "after", "before" and "hash"`,
  list: 'must be a list',
  many: (max: number) => `must have ${max} items at most`,
} as const;
