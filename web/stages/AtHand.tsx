import { DeleteOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import type { ReactNode } from 'react';

interface Props {
  /** What the list is of, as its heading and for who does not see it. */
  title: string;
  label: string;
  open: boolean;
  setOpen: (open: boolean) => void;
  /** Why it could not be read; null where it was. */
  problem: string | null;
  items: readonly { id: string; label: string; detail: string }[];
  onRemove: (id: string) => void;
  /** What stands under the list while it is open: ways to add to it. */
  children: ReactNode;
}

/** A list of what the shop has at hand: looked at, taken from, and added to. */
export function AtHand({ title, label, open, setOpen, problem, items, onRemove, children }: Props) {
  return (
    <section aria-label={label}>
      <h2>{title}</h2>
      {problem !== null && <p className="field-echo is-wrong">The list could not be loaded. {problem}</p>}
      <Button aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? 'Close the list' : 'Show the list, or add to it'}
      </Button>
      {open && (
        <>
          <ul className="at-hand">
            {items.map((item) => (
              <li key={item.id}>
                <span>
                  {item.label} <span className="quiet">{item.detail}</span>
                </span>
                <Button
                  icon={<DeleteOutlined />}
                  aria-label={`Remove ${item.label} from the list`}
                  onClick={() => onRemove(item.id)}
                />
              </li>
            ))}
          </ul>
          {children}
        </>
      )}
    </section>
  );
}
