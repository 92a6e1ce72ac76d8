import type { Schemas } from '../api/client.ts';
import { TracksPlot } from '../chart/TracksPlot.tsx';
import { byKind } from './tracks.ts';

/** What sensors said during a run. */
export function TracksPart({ tracks }: { tracks: readonly Schemas['Track'][] }) {
  const kinds = byKind(tracks);
  if (kinds.length === 0) return null;
  return (
    <section className="mt-5">
      <h3>Sensors during the run</h3>
      {kinds.map((k) => (
        <TracksPlot key={`${k.kind} ${k.unit}`} title={k.title} unit={k.unit} lines={k.tracks} />
      ))}
    </section>
  );
}
