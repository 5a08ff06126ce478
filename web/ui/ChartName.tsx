import type { SVGProps } from 'react';
import { shortName } from './short-name';

interface Props extends SVGProps<SVGTextElement> {
  name: string;
  /** Characters that have room. */
  limit: number;
}

/** A name on a chart: shortened where it is too long, and then whole where it is pointed at. */
export function ChartName({ name, limit, ...text }: Props) {
  const short = shortName(name, limit);
  return (
    <text {...text}>
      {short}
      {short !== name && <title>{name}</title>}
    </text>
  );
}
