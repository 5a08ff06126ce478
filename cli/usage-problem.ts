/**
 * Something the caller got wrong, told in one line. Anything else that is thrown is a fault of ours and keeps its
 * trace.
 */
export class UsageProblem extends Error {}
