import { Link } from 'react-router';
import { useBackupAge } from '../api/keep';
import { KEEP } from './words';

/** Says aloud in the shop that the last backup is long ago; nothing where it is not. */
export function BackupLine() {
  const age = useBackupAge();
  if (!age || age.says === null) return null;
  return (
    <p className="finding is-watch" role="status">
      <strong>{KEEP.old(age.says)}</strong> <Link to="/keep">{KEEP.title}</Link>
    </p>
  );
}

/** When the last one was made, and the way to all that there is about them. */
export function BackupLink() {
  const age = useBackupAge();
  return (
    <Link to="/keep" className="button-link">
      {KEEP.title}
      {age?.lastAt && <span className="quiet"> {KEEP.lastLine(age.lastAt)}</span>}
    </Link>
  );
}
