/** Sizes and speeds of the clips, and how a ladder of them is climbed. */

export interface Step {
  width: number;
  height: number;
  fps: number;
}

const SIZES: readonly [number, number][] = [[640, 360], [1280, 720], [1920, 1080], [2560, 1440], [3840, 2160]];

/** From the lightest to the heaviest: each size at 30 and at 60 frames a second. The same order as the metric's choices. */
export const STEPS: readonly Step[] = SIZES.flatMap(([width, height]) => [30, 60].map((fps) => ({ width, height, fps })));

export const named = (step: Step) => `${step.height}p at ${step.fps}`;

/** Frames that may be missing from a clip that plays well. */
export const MOST_DROPPED = 0.01;

export type Codec = 'vp8' | 'vp9' | 'av1' | 'h264';

/** What a browser is asked for by name. Levels that hold the largest step. */
export const CODECS: Record<Codec, { name: string; ask: string }> = {
  vp8: { name: 'VP8', ask: 'vp8' },
  vp9: { name: 'VP9', ask: 'vp09.00.52.08' },
  av1: { name: 'AV1', ask: 'av01.0.13M.08' },
  h264: { name: 'H.264', ask: 'avc1.640034' },
};

/** What playing a clip came to. */
export interface Played {
  frames: number;
  dropped: number;
  late: number;
}

/** Whether a step counts as played. */
export function plays({ frames, dropped, late }: Played): boolean {
  return frames > 0 && (dropped + late) / frames < MOST_DROPPED;
}

/**
 * The highest step that plays, going up while they do. A step that fails ends it: what is heavier is not tried, as it
 * would take long and say nothing.
 *
 * @returns position in STEPS from 1, as an ordered choice is kept; 0 where not even the first plays
 */
export async function climb(steps: readonly Step[], play: (step: Step) => Promise<Played | null>): Promise<{ position: number; tried: { step: Step; played: Played | null }[] }> {
  const tried: { step: Step; played: Played | null }[] = [];
  for (const [i, step] of steps.entries()) {
    const played = await play(step);
    tried.push({ step, played });
    if (!played || !plays(played)) return { position: i, tried };
  }
  return { position: steps.length, tried };
}
