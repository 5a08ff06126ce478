import { useQuery } from '@tanstack/react-query';
import { Button, Input, type InputRef } from 'antd';
import { useId, useRef, useState } from 'react';
import { ask } from '../api/client';
import { useShopChange } from '../api/shop';
import { Dialog } from '../ui/Dialog';
import type { DriveListed, VehiclePage } from '@emery/core/api';

/** Says whose a drive is: it goes to another vehicle with its jobs and its story. */
export function MoveDrive({ drive, onClose }: { drive: DriveListed; onClose: () => void }) {
  const [search, setSearch] = useState('');
  const [problem, setProblem] = useState('');
  const field = useRef<InputRef>(null);
  const id = useId();
  const change = useShopChange((run: () => Promise<unknown>) => run());
  const { data } = useQuery({
    queryKey: ['vehicles', 'to move to', search],
    queryFn: ({ signal }) =>
      ask<VehiclePage>('GET', `/vehicles?search=${encodeURIComponent(search)}&limit=8&offset=0`, undefined, signal),
  });
  const move = async (vehicleId: string) => {
    try {
      await change.mutateAsync(() => ask('PUT', `/drives/${drive.id}/vehicle`, { vehicleId }));
      onClose();
    } catch (error) {
      setProblem(`Not moved. ${(error as Error).message}`);
    }
  };
  const others = (data?.vehicles ?? []).filter((vehicle) => vehicle.id !== drive.vehicleId);
  return (
    <Dialog title={`Move ${drive.name} to`} onClose={onClose} first={field}>
      <div className="form-rows">
        <div className="field">
          <label className="label" htmlFor={id}>
            Vehicle
          </label>
          <Input
            ref={field}
            id={id}
            value={search}
            placeholder="Name or plate"
            onChange={(event) => setSearch(event.target.value)}
          />
        </div>
        {others.map((vehicle) => (
          <Button key={vehicle.id} block onClick={() => void move(vehicle.id)}>
            {vehicle.name}
            {vehicle.plate && `, ${vehicle.plate}`}
          </Button>
        ))}
        {data && others.length === 0 && <p className="quiet">No other vehicle has that name. Add it first.</p>}
        {problem && (
          <p className="field-echo is-wrong" role="alert">
            {problem}
          </p>
        )}
      </div>
    </Dialog>
  );
}
