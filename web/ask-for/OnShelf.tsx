import { fixed } from '@emery/core/quantity';
import { useStockOf } from '../api/stock';

/** The belts of one length in the shop's list, with what lies on the shelf; nothing where the list has none. */
export function OnShelf({ section, ribs, lengthMm }: { section: string; ribs: number | null; lengthMm: number }) {
  const belts = useStockOf(section, ribs, lengthMm).data?.belts ?? [];
  if (belts.length === 0) return null;
  return (
    <ul className="stocked" aria-label="On the list of belts">
      {belts.map(({ id, code, price, shelf }) => (
        <li key={id}>
          {code || 'no code'}
          {price !== null && `, ${fixed(price, 2)}`}, {shelf === 0 ? 'none on the shelf' : `${shelf} on the shelf`}
        </li>
      ))}
    </ul>
  );
}
