import type { RuleOfThumb } from './told';

export const RULE_WORDS: Record<RuleOfThumb, string> = {
  'as-read': 'As measured, nothing added',
  'less-half-inch': 'Less half an inch',
  'plus-inch': 'Plus an inch',
  'less-one-percent': 'Less one percent',
};
