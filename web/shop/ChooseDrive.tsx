import { useQuery } from '@tanstack/react-query';
import { useId, useState } from 'react';
import { ask } from '../api/client';
import { Thumbnail } from '../bench/Thumbnail';
import { LineInput } from '../ui/LineInput';
import './choose-drive.css';
import type { VehiclePage } from '@emery/core/api';

/** So many vehicles are looked through at a time. */
const FIRST = 8;

/** The first few drives of the shop that are called so, to choose one of. */
export function ChooseDrive({ chosen = '', onChoose }: { chosen?: string; onChoose: (id: string) => void }) {
  const [search, setSearch] = useState('');
  const id = useId();
  const { data, error } = useQuery({
    queryKey: ['vehicles', 'to choose a drive', search],
    queryFn: ({ signal }) =>
      ask<VehiclePage>(
        'GET',
        `/vehicles?search=${encodeURIComponent(search)}&limit=${FIRST}&offset=0`,
        undefined,
        signal,
      ),
  });
  const drives = (data?.vehicles ?? []).flatMap(({ name, drives: own }) =>
    own.map((drive) => ({ drive, vehicle: name })),
  );
  return (
    <div>
      <label className="label" htmlFor={id}>
        Which drive
      </label>
      <LineInput
        id={id}
        autoFocus
        value={search}
        placeholder="Vehicle, plate or drive"
        onChange={({ target }) => setSearch(target.value)}
      />
      {error && <p className="field-echo is-wrong">{error.message}</p>}
      <ul className="choose-drive">
        {drives.map(({ drive, vehicle }) => (
          <li key={drive.id}>
            <button type="button" aria-pressed={drive.id === chosen} onClick={() => onChoose(drive.id)}>
              <Thumbnail sketch={drive.sketch} />
              <span>
                <strong>{vehicle}</strong>, {drive.name}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {data && drives.length === 0 && <p className="quiet">No drive in the shop has that name.</p>}
    </div>
  );
}
