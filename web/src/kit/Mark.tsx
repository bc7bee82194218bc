/** The pot with its lid. */
export function Mark({ size }: { size: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 32 32" aria-hidden="true">
      <g fill="none" stroke="currentColor" strokeWidth="2.400" strokeLinecap="round">
        <path d="M4 15h24" />
        <path d="M7 11q9-5 18 0" />
        <path d="M16 8.500V5.500" />
      </g>
      <path d="M6 17.500h20v4q0 6-6 6h-8q-6 0-6-6z" fill="currentColor" />
    </svg>
  );
}
