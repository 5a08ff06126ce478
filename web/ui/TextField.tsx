import { Input } from 'antd';
import { useId } from 'react';
import { useOwnText } from './use-own-text';
import { FieldFrame } from './FieldFrame';

interface Props {
  label: string;
  value: string;
  max: number;
  /** What is wrong with it; empty where nothing is. */
  problem?: string;
  onChange: (text: string) => void;
}

/** A short text: a name. */
export function TextField({ label, value, max, problem = '', onChange }: Props) {
  const id = useId();
  const own = useOwnText(value, onChange);
  return (
    <FieldFrame id={id} label={label} problem={problem || null}>
      <Input
        id={id}
        {...own}
        maxLength={max}
        autoComplete="off"
        status={problem ? 'error' : ''}
        aria-invalid={problem !== ''}
        aria-describedby={`${id}-echo`}
      />
    </FieldFrame>
  );
}
