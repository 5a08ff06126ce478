import { useRef } from 'react';
import { CardDrawing } from '../card/CardDrawing';
import { CardPage, fileNameOf } from '../card/CardPage';
import { bringLines, jobPdf, type PrintedJob } from './job-pdf';
import './jobs.css';
import { PHASES } from '@emery/core/drive';
import { PHASE_WORDS } from '@emery/core/job';

/** The drawing's frame on the sheet, px. */
const FRAME = { left: 8, top: 8, width: 360, height: 250 };

/** A job as it is printed, and its way into a PDF. */
export function Paper({ printed, back }: { printed: PrintedJob; back: string }) {
  const drawing = useRef<SVGSVGElement>(null);
  const { vehicle, drive, shop, facts, sheet, done, estimate } = printed;
  return (
    <CardPage
      title="Job card"
      back={back}
      backName="Back"
      paper="upright"
      name={fileNameOf(vehicle, drive, 'job')}
      makePdf={() => jobPdf(printed, drawing.current!)}
    >
      <main className="job-paper">
        <div className="job-paper-head">
          <div>
            <h1>{vehicle}</h1>
            <p>{drive}</p>
          </div>
          <p>{shop}</p>
        </div>
        <p className="job-paper-facts">{facts.join(' · ')}</p>
        <div className="job-paper-top">
          <svg
            ref={drawing}
            xmlns="http://www.w3.org/2000/svg"
            viewBox={`0 0 ${FRAME.width + 16} ${FRAME.height + 16}`}
            width={FRAME.width + 16}
            height={FRAME.height + 16}
            role="img"
            aria-label="The drive"
            fontFamily="Helvetica, Arial, sans-serif"
            fill="#000"
          >
            <CardDrawing drive={sheet.drive} frame={FRAME} />
          </svg>
          <section aria-label="Bring">
            <h2>Bring</h2>
            {[...bringLines(sheet), ...estimate].map((line) => (
              <p key={line}>{line}</p>
            ))}
          </section>
        </div>
        <div className="job-paper-steps">
          {PHASES.map((phase) => {
            const steps = sheet.steps.filter((step) => step.phase === phase);
            return steps.length === 0 ? null : (
              <section key={phase} aria-label={PHASE_WORDS[phase]}>
                <h2>{PHASE_WORDS[phase]}</h2>
                <ol>
                  {steps.map((step) => (
                    <li key={step.id}>
                      <span className="job-paper-box">{done.has(step.id) ? '✓' : ''}</span>
                      <span>
                        {sheet.steps.indexOf(step) + 1} {step.text}
                        {step.caution && <em> Caution: {step.caution}</em>}
                        {done.get(step.id) && <span> ({done.get(step.id)})</span>}
                      </span>
                    </li>
                  ))}
                </ol>
              </section>
            );
          })}
        </div>
      </main>
    </CardPage>
  );
}
