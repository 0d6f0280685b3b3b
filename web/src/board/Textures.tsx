/** The fills that say how a camera records, what is missing and how hot it is; each survives black and white. */
export function Textures() {
  return (
    <defs>
      <pattern id="t-takes" width="8" height="14" patternUnits="userSpaceOnUse">
        <rect width="8" height="14" fill="var(--rope-ground)" />
        <rect width="8" height="5" fill="var(--rope)" />
      </pattern>
      <pattern id="t-gap" width="6" height="6" patternUnits="userSpaceOnUse">
        <rect width="6" height="6" fill="var(--paper)" />
        <path d="M0 6L6 0M0 0L6 6" stroke="var(--gap)" strokeWidth="0.9" />
      </pattern>
      <pattern id="t-heat" width="4" height="3" patternUnits="userSpaceOnUse">
        <rect width="4" height="3" fill="var(--paper)" />
        <rect width="4" height="1.7" fill="var(--ember)" />
      </pattern>
    </defs>
  );
}
