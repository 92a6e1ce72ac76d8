export interface Check {
  text: string;
  ticked: boolean;
}

/** What to do before the first run. Nothing forces anybody: what was not ticked is kept with the session as well. */
export function Checks({ checks, onChecks }: { checks: Check[]; onChecks: (checks: Check[]) => void }) {
  if (checks.length === 0) return null;
  return (
    <fieldset className="mt-7">
      <legend className="font-title text-[17px] font-medium">Before the first run</legend>
      {checks.map((check, i) => (
        <label key={check.text} className="flex items-baseline gap-3 border-b border-hair-2 py-2 text-[16px]">
          <input
            type="checkbox"
            className="h-5 w-5 shrink-0 translate-y-1 accent-leaf"
            checked={check.ticked}
            onChange={(e) => onChecks(checks.map((c, at) => (at === i ? { ...c, ticked: e.target.checked } : c)))}
          />
          <span>{check.text}</span>
        </label>
      ))}
    </fieldset>
  );
}
