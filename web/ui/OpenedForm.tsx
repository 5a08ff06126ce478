import { useEffect, useRef, type ReactNode } from 'react';

/** A form that was asked for: it opens where it can be seen, with its first line in focus. */
export function OpenedForm({ className = 'reading-form', children }: { className?: string; children: ReactNode }) {
  const form = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const line = form.current?.querySelector<HTMLElement>('.line-input:not(.has-suffix), .ant-input');
    line?.focus({ preventScroll: true });
    form.current?.scrollIntoView({ block: 'nearest' });
  }, []);
  return (
    <div className={className} ref={form}>
      {children}
    </div>
  );
}
