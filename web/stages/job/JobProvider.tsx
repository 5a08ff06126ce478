import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';

export type JobView = 'card' | 'bolts' | 'bring';

/** What the parts of Job card share. */
export interface JobStageState {
  view: JobView;
  setView: (view: JobView) => void;
  /** The belt that the job is for; null for all of them. */
  scope: string | null;
  setScope: (belt: string | null) => void;
  /** The step that is looked at, by its id. */
  step: string | null;
  setStep: (step: string | null) => void;
}

const JobContext = createContext<JobStageState | null>(null);

export function useJobStage(): JobStageState {
  const job = useContext(JobContext);
  if (!job) throw new Error('useJobStage outside a bench');
  return job;
}

export function JobProvider({ children }: { children: ReactNode }) {
  const [view, setView] = useState<JobView>('card');
  const [scope, setScope] = useState<string | null>(null);
  const [step, setStep] = useState<string | null>(null);
  const value = useMemo((): JobStageState => ({ view, setView, scope, setScope, step, setStep }), [view, scope, step]);
  return <JobContext value={value}>{children}</JobContext>;
}
