import { ROLE_LABELS, ROLES } from '@emery/core/drive';

export const ROLE_OPTIONS = ROLES.map((role) => ({
  value: role,
  label: role === 'other' ? 'Something else' : ROLE_LABELS[role],
}));
