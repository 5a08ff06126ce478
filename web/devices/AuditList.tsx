import { DAY_AND_TIME } from '../ui/day-and-time';
import { Button } from 'antd';
import { useState } from 'react';
import { useAudit } from '../api/access';
import { AUDIT_WORDS } from './words';

const FIRST = 12;

/** What was done by whom: sign-ins, refusals, deletes, exports, restores, changes of roles. */
export function AuditList() {
  const { data, error } = useAudit(true);
  const [all, setAll] = useState(false);
  const rows = data?.entries.slice(0, all ? undefined : FIRST) ?? [];
  return (
    <section className="sheet" aria-label="What was done">
      <h2>What was done</h2>
      {error && <p className="finding is-fault">{error.message}</p>}
      <ul className="rows audit">
        {rows.map(({ id, at, kind, who, address, what, times }) => (
          <li key={id}>
            <span className="audit-at">{DAY_AND_TIME.format(new Date(at))}</span>
            <strong>{AUDIT_WORDS[kind]}</strong>
            <span>
              {who}
              {address && <span className="quiet"> {address}</span>}
            </span>
            <span className="audit-what">
              {what}
              {times > 1 && <strong> {times} times</strong>}
            </span>
          </li>
        ))}
      </ul>
      {data && data.entries.length > FIRST && (
        <Button type="link" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? 'Show fewer' : `Show the last ${data.entries.length}`}
        </Button>
      )}
    </section>
  );
}
