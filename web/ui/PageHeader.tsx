import type { ReactNode } from 'react';
import { AwayLine } from '../offline/AwayLine';
import { HabitsButton } from '../habits/HabitsButton';
import { Link } from 'react-router';

/** The band at the head of every page: the name, which leads to the shop from anywhere else, and what the page adds. */
export function PageHeader({ home = false, children }: { home?: boolean; children: ReactNode }) {
  return (
    <>
      <header className="header">
        {home ? (
          <span className="wordmark">Emery</span>
        ) : (
          <Link to="/" className="wordmark">
            Emery
          </Link>
        )}
        {children}
        <HabitsButton />
      </header>
      <AwayLine />
    </>
  );
}
