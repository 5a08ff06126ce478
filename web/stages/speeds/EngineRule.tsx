import { PauseOutlined, CaretRightOutlined } from '@ant-design/icons';
import { Button, Slider } from 'antd';
import { SLOWED } from './TurningSpokes';
import { useSpeeds } from './SpeedsProvider';
import { type Station, stationLabel } from '@emery/core/drive';
import { bandOf, PLACE_WORDS, placeIn, rpmFigure } from '@emery/core/speeds';

/**
 * One rule for the engine's speed, with its marks; every figure follows it. Above it what the shaft in hand turns: the
 * largest figure.
 */
export function EngineRule({ station, ratio }: { station: Station; ratio: number }) {
  const { engineRpm, setEngineRpm, marks, bands, turning, setTurning } = useSpeeds();
  const rpm = ratio * engineRpm;
  const place = PLACE_WORDS[placeIn(bandOf(station, bands).band, rpm)];
  const max = Math.max(Math.ceil((marks.redline * 1.04) / 100) * 100, Math.ceil(engineRpm / 100) * 100);
  return (
    <div className="answer engine-rule" data-testid="speed-answer">
      <div className="label">
        {stationLabel(station)}, rev/min at engine speed {rpmFigure(engineRpm)}
      </div>
      <div className="answer-figure" data-rpm={rpm}>
        {rpmFigure(rpm)}
        <span
          className={`answer-other speed-place is-${place.word.replace(/ /g, '-')}`}
        >{`${place.mark} ${place.word}`}</span>
      </div>
      <div className="engine-slide">
        <Slider
          min={0}
          max={max}
          step={10}
          value={Math.min(max, engineRpm)}
          onChange={setEngineRpm}
          tooltip={{ open: false }}
          ariaLabelForHandle="Engine speed, rev/min"
          marks={{ [marks.idle]: mark('idle'), [marks.cruise]: mark('cruise'), [marks.redline]: mark('redline') }}
        />
      </div>
      <div className="button-row">
        {(['idle', 'cruise', 'redline'] as const).map((name) => (
          <Button
            key={name}
            aria-pressed={engineRpm === marks[name]}
            type={engineRpm === marks[name] ? 'primary' : 'default'}
            onClick={() => setEngineRpm(marks[name])}
          >
            {name[0]!.toUpperCase() + name.slice(1)} {rpmFigure(marks[name])}
          </Button>
        ))}
        <Button
          icon={turning ? <PauseOutlined /> : <CaretRightOutlined />}
          aria-label={turning ? 'Stop the animation' : `Animate the drawing, ${SLOWED} times slower`}
          onClick={() => setTurning(!turning)}
        />
      </div>
    </div>
  );
}

const mark = (label: string) => ({ label: <span className="engine-mark">{label}</span> });
