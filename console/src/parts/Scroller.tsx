/** Holds what may be wider than the page; it can be scrolled by keyboard too. */
export function Scroller({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div className="overflow-x-auto" role="region" aria-label={label} tabIndex={0}>
      {children}
    </div>
  );
}
