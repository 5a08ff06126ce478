import { memo, useEffect, useMemo, useRef, type ComponentType, type ReactNode } from 'react';

type Any = Record<string, unknown>;

/**
 * The same component, drawn again only when something it shows is another: what its functions do may change with every
 * drawing of its owner, as in a drag, and the latest is called all the same. For fields, which cost more to draw than
 * the drive does.
 */
export function steady<P extends object>(Part: ComponentType<P>): (props: P) => ReactNode {
  const Kept = memo(Part, alike) as unknown as ComponentType<P>;
  return function Steady(props: P) {
    const latest = useRef<Any>(props as Any);
    useEffect(() => {
      latest.current = props as Any;
    });
    const functions = Object.keys(props).filter((key) => typeof (props as Any)[key] === 'function');
    const names = functions.join();
    const calls = useMemo(
      () =>
        Object.fromEntries(
          names
            .split(',')
            .filter(Boolean)
            .map((name) => [
              name,
              (...args: unknown[]) => (latest.current[name] as (...all: unknown[]) => unknown)(...args),
            ]),
        ),
      [names],
    );
    return <Kept {...props} {...calls} />;
  };
}

/** Props that show the same: lists and objects by what they hold. */
function alike(before: object, now: object): boolean {
  const [a, b] = [before as Any, now as Any];
  const keys = Object.keys(b);
  return keys.length === Object.keys(a).length && keys.every((key) => same(a[key], b[key], 3));
}

function same(a: unknown, b: unknown, deep: number): boolean {
  if (Object.is(a, b)) return true;
  if (deep === 0 || typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const keys = Object.keys(b);
  return keys.length === Object.keys(a).length && keys.every((key) => same((a as Any)[key], (b as Any)[key], deep - 1));
}
