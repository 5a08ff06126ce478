import { Input } from 'antd';
import { useId } from 'react';
import { FieldFrame } from './FieldFrame';

interface Props {
  label: string;
  value: string;
  most: number;
  /** What is wrong with it; empty where nothing is. */
  problem?: string;
  onChange: (text: string) => void;
}

/** A short text: a name. */
export function TextField({ label, value, most, problem = '', onChange }: Props) {
  const id = useId();
  return (
    <FieldFrame id={id} label={label} problem={problem || null}>
      <Input
        id={id}
        value={value}
        maxLength={most}
        autoComplete="off"
        status={problem ? 'error' : ''}
        aria-invalid={problem !== ''}
        aria-describedby={`${id}-echo`}
        onChange={(event) => onChange(event.target.value)}
      />
    </FieldFrame>
  );
}
