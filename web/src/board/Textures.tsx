/** The fills that say how a camera records, what is missing and how hot it is; each survives black and white. */
export function Textures() {
  return (
    <defs>
      <pattern id="t-takes" width="8" height="14" patternUnits="userSpaceOnUse">
        <rect width="8" height="14" fill="var(--rope-ground)" />
        <rect width="8" height="5" fill="var(--rope)" />
      </pattern>
      <pattern id="t-loop" width="8" height="8" patternUnits="userSpaceOnUse">
        <rect width="8" height="8" fill="var(--rope-ground)" />
        <path d="M-2 2L2 -2M-2 10L10 -2M6 10L10 6" stroke="var(--rope)" strokeWidth="3" />
      </pattern>
      <pattern id="t-interval" width="8" height="5" patternUnits="userSpaceOnUse">
        <rect width="8" height="5" fill="var(--rope-ground)" />
        <rect width="8" height="1.6" fill="var(--rope)" />
      </pattern>
      <pattern id="t-armed" width="12" height="12" patternUnits="userSpaceOnUse">
        <rect width="12" height="12" fill="var(--rope-ground)" />
        <circle cx="3" cy="3" r="1.9" fill="var(--rope)" />
        <circle cx="9" cy="9" r="1.9" fill="var(--rope)" />
      </pattern>
      <pattern id="t-frost" width="5" height="5" patternUnits="userSpaceOnUse">
        <rect width="5" height="5" fill="var(--paper)" />
        <path d="M0 5L5 0M0 0L5 5" stroke="var(--frost)" strokeWidth="0.9" />
      </pattern>
      <pattern id="t-gap" width="6" height="6" patternUnits="userSpaceOnUse">
        <rect width="6" height="6" fill="var(--paper)" />
        <path d="M0 6L6 0M0 0L6 6" stroke="var(--gap)" strokeWidth="0.9" />
      </pattern>
      <pattern id="t-dead" width="5" height="5" patternUnits="userSpaceOnUse">
        <rect width="5" height="5" fill="var(--paper)" />
        <path d="M0 2.5H5" stroke="var(--gap)" strokeWidth="1.6" />
      </pattern>
      <pattern id="t-heat" width="4" height="3" patternUnits="userSpaceOnUse">
        <rect width="4" height="3" fill="var(--paper)" />
        <rect width="4" height="1.7" fill="var(--ember)" />
      </pattern>
    </defs>
  );
}
