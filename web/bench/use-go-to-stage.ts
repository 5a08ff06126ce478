import { useCallback } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useBenchStores } from '../state/bench';

/** Goes over to another stage of the drive that is open. */
export function useGoToStage(): (stage: string) => void {
  const bench = useBenchStores();
  const navigate = useNavigate();
  const { driveId } = useParams();
  return useCallback(
    (stage) => {
      bench.get().leaveStage();
      void navigate(`/drives/${driveId}/${stage}`, { replace: true });
    },
    [bench, navigate, driveId],
  );
}
