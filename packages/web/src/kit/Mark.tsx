/** The mark of the application: four threads of its dyes, woven. */
export const Mark = () => (
  <svg width={30} height={30} viewBox="0 0 30 30" aria-hidden>
    <g strokeWidth={4.4} fill="none">
      <path d="M4 8H26M4 22H26" stroke="var(--indigo)" />
      <path d="M8 3V5.2M8 10.8V27M22 3V19.2M22 24.8V27" stroke="var(--madder)" />
      <path d="M15 3V27" stroke="var(--weld)" />
      <path d="M4 15H12M18 15H26" stroke="var(--woad)" />
    </g>
  </svg>
);
