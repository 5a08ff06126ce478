import { habitsOpen } from './open';
import { HABITS } from './words';

/** The way to how this person wants to read: light, units, figures. On every page. */
export function HabitsButton() {
  return (
    <button type="button" className="habits-button" aria-haspopup="dialog" onClick={() => habitsOpen.set(true)}>
      {/* Three sliders, drawn here: a page that must be there at once has no set of icons. */}
      <svg viewBox="0 0 24 24" width="22" height="22" aria-hidden>
        <path d="M4 7h9M17 7h3M4 12h3M11 12h9M4 17h7M15 17h5" />
        <circle cx="15" cy="7" r="2.2" />
        <circle cx="9" cy="12" r="2.2" />
        <circle cx="13" cy="17" r="2.2" />
      </svg>
      <span className="visually-hidden">{HABITS.title}</span>
    </button>
  );
}
