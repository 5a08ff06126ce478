import { Button } from 'antd';
import { useNow } from '../ui/use-now';
import { useTyped } from '../ui/typed-text';

/** The minutes of a step, counted down on this device; kept over a reload. */
export function Countdown({ place, minutes }: { place: string; minutes: number }) {
  const [from, setFrom] = useTyped<number | null>(`counting ${place}`, null);
  const ends = from === null ? null : from + minutes * 60_000;
  const { now, look } = useNow(ends);
  const left = ends === null ? null : Math.max(0, ends - now);
  if (left === null) return <Button onClick={() => setFrom(look())}>Count {minutes} minutes</Button>;
  return (
    <p className="job-countdown" role="timer">
      {left === 0
        ? 'Time is up: key out.'
        : `${Math.floor(left / 60_000)}:${String(Math.floor(left / 1000) % 60).padStart(2, '0')} left`}
    </p>
  );
}
