import { lazyPart } from '../../parts/lazy-part';
import { edit, useBench } from '../../state/bench';
import { UnrolledBelt } from '../../views/unrolled/UnrolledBelt';
import { freeDrag } from '../dragging';
import type { PulleyFigure, PulleyPlace, Stage, StageState } from '../stage';
import { SurveyFront } from './SurveyFront';
import { SurveyLayer } from './SurveyLayer';
import { SurveyProvider } from './SurveyProvider';
import { Underlay } from './Underlay';
import { type Drive, removeStation } from '@emery/core/drive';
import { CURED_BY_MEASURING, type DriveSolution } from '@emery/core/path';
import { formatLength } from '@emery/core/quantity';
import { unmeasured } from '@emery/core/start';

/** Survey: what was measured, of the pulleys and between them. */
export const survey: Stage = {
  id: 'survey',
  name: 'Survey',
  state,
  Ledger: lazyPart('Survey', () => import('./SurveyLedger')),
  Chart: UnrolledBelt,
  Provider: SurveyProvider,
  Front: SurveyFront,
  Underlay,
  Layer: SurveyLayer,
  pulleyFigure: usePulleyFigure,
  marked: ({ belts }) => belts.flatMap(({ findings }) => findings.filter(({ code }) => CURED_BY_MEASURING.has(code))),
  allShaftsAlike: true,
  drag: freeDrag,
  nudges: true,
  movesObstacles: true,
  keys: [
    {
      key: 'Delete',
      shown: 'Delete',
      does: 'delete the selected pulley',
      run: ({ selection, get }) => {
        const selected = selection.get();
        if (selected?.kind !== 'pulley') return false;
        selection.set(null);
        get().dispatch(edit((drive) => removeStation(drive, selected.station)));
        return true;
      },
    },
  ],
};

function state(drive: Drive, solution: DriveSolution): StageState {
  if (drive.stations.length === 0) return 'untouched';
  const own = [...solution.findings, ...solution.belts.flatMap(({ findings }) => findings)].filter(({ code }) =>
    CURED_BY_MEASURING.has(code),
  );
  if (own.some(({ severity }) => severity === 'fault')) return 'needs attention';
  const measured = drive.stations.every(({ pulleys }) =>
    pulleys.every(({ diameter, teeth }) => (diameter ?? teeth ?? 0) > 0),
  );
  const known = measured && unmeasured(drive).length === 0;
  return known && own.length === 0 && drive.stations.length > 1 ? 'settled' : 'in progress';
}

function usePulleyFigure(): (place: PulleyPlace) => PulleyFigure {
  const { unit } = useBench('unit');
  return ({ main }) => {
    if (main.surface === 'toothed') return { text: `${main.teeth} teeth` };
    return main.diameter ? { text: formatLength(main.diameter, unit), mm: main.diameter } : { text: 'to be measured' };
  };
}
