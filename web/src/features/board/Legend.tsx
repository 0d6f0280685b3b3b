import { memo } from "react";

/** How to read a rope. */
export const Legend = memo(function Legend() {
  return (
    <section>
      <h2>How to read a rope</h2>
      <ul className="legend label">
        <Entry words="rolled: charge narrows as it is spent">
          <path d="M6 1H28L18 21H6Z" fill="var(--rope)" />
        </Entry>
        <Entry words="takes: bars, spread over the leg">
          <path d="M6 1H28L18 21H6Z" fill="url(#t-takes)" stroke="var(--rope)" />
        </Entry>
        <Entry words="loop: diagonals; kept on a word or a press">
          <path d="M6 1H28L18 21H6Z" fill="url(#t-loop)" stroke="var(--rope)" />
        </Entry>
        <Entry words="by the clock: blocks true to it">
          <path d="M6 3H27V8H6ZM6 13H22V17H6Z" fill="var(--rope)" />
        </Entry>
        <Entry words="interval: hairlines, a frame every so often">
          <path d="M6 1H28L18 21H6Z" fill="url(#t-interval)" stroke="var(--rope)" />
        </Entry>
        <Entry words="on a trigger: dots, armed and waiting">
          <path d="M6 1H28L18 21H6Z" fill="url(#t-armed)" stroke="var(--rope)" />
        </Entry>
        <Entry words="frost: charge that the cold holds back">
          <path d="M6 1H28L18 21H6Z" fill="var(--rope)" />
          <path d="M6 1H10L14 21H6Z" fill="url(#t-frost)" stroke="var(--frost)" />
        </Entry>
        <Entry words="not filmed, with its cause beside it">
          <rect
            x="7"
            y="5"
            width="24"
            height="12"
            fill="url(#t-gap)"
            stroke="var(--gap)"
            strokeWidth="2"
          />
        </Entry>
        <Entry words="barred: a thing that serves it is empty, no sound say">
          <path d="M6 1H28L18 21H6Z" fill="var(--rope)" />
          <rect x="24" y="3" width="9" height="16" fill="url(#t-dead)" stroke="var(--gap)" />
        </Entry>
        <Entry words="heat grows to its wall at the left">
          <path
            d="M30 1L20 11L24 21H30Z"
            fill="url(#t-heat)"
            stroke="var(--ember)"
            strokeWidth="0.8"
          />
          <path d="M12 1V21" stroke="var(--rule)" />
        </Entry>
        <Entry words="room left on the card">
          <rect
            x="14"
            y="1"
            width="9"
            height="20"
            fill="none"
            stroke="var(--card)"
            strokeWidth="0.8"
          />
          <path d="M14 1H22L18 21H14Z" fill="var(--card)" />
        </Entry>
        <Entry words="spine: must, want, nice">
          <path d="M8 1V21" stroke="var(--ink)" strokeWidth="4" />
          <path d="M18 1V21" stroke="var(--ink)" strokeWidth="2" />
          <path d="M27 1V21" stroke="var(--ink)" strokeWidth="1" />
        </Entry>
      </ul>
      <p className="caution">
        Tumbrel advises on filming kit; it is no judge of whether a trip is safe. Touch cameras only
        where hands are free. Local law, event rules and makers’ instructions come first.
      </p>
    </section>
  );
});

function Entry({ words, children }: { words: string; children: React.ReactNode }) {
  return (
    <li>
      <svg width="36" height="22" aria-hidden="true">
        {children}
      </svg>
      {words}
    </li>
  );
}
