/** The mark: a bookmark with the spot that it keeps. */
export function Mark() {
  return (
    <svg width="18" height="24" viewBox="0 0 18 24" aria-hidden="true">
      <path d="M2 2h14v20l-7-5.2L2 22z" fill="none" stroke="var(--madder)" strokeWidth="2.2" strokeLinejoin="round" />
      <circle cx="9" cy="8.6" r="2.3" fill="var(--madder)" />
    </svg>
  );
}
