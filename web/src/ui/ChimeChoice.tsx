import { useChime, wantChime } from './chime.ts';

export function ChimeChoice() {
  return (
    <label className="small flex items-baseline gap-1.5 whitespace-nowrap">
      <input
        type="checkbox"
        className="accent-leaf"
        checked={useChime()}
        onChange={(e) => wantChime(e.target.checked)}
      />
      sound when a device is done
    </label>
  );
}
