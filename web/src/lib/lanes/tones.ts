/** What a piece of a lane stands for; each differs by shape as well as by colour. */
export type PieceTone = 'paint' | 'block' | 'pick' | 'kept' | 'missed' | 'open' | 'frame' | 'wish';

export const looksOf: Readonly<Record<PieceTone, string>> = {
  paint: 'bg-glow-bar text-on-glow',
  block: 'border border-glow bg-glow-tint font-semibold text-on-tint',
  pick: 'border-2 border-ink bg-glow font-bold text-on-glow',
  kept: 'hatched border-2 border-ink bg-glow font-bold text-on-glow',
  missed: 'border-2 border-dashed border-brick bg-brick-tint font-semibold text-brick-text',
  open: 'pointer-events-none bg-glow-bar',
  frame: 'z-10 border-2 border-ink bg-transparent',
  wish: 'border-2 border-dotted border-violet bg-violet-tint text-center font-bold text-ink',
};
