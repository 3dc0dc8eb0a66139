/** Shown while the workbench, or the script of its first view, is loading. */
export function Opening() {
  return (
    <main className="px-5 py-8">
      <p role="status" className="text-quiet">
        Opening the workbench
      </p>
    </main>
  );
}
